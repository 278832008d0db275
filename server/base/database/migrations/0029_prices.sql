ALTER TABLE "coolant_product" ADD COLUMN "price_minor" integer;--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "brought_on" date;--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "not_come_on" date;--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "fetched_on" date;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "rates" jsonb DEFAULT '{"currency":"EUR","hourMinor":null,"hourMinorByKind":{},"taxPercent":0,"withTax":true,"charge":"told","overPercent":10}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "contact" jsonb DEFAULT '{"address":"","phone":"","email":"","publicAddress":""}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "store_item" ADD COLUMN "price_minor" integer;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD CONSTRAINT "coolant_price_sane" CHECK (price_minor >= 0);--> statement-breakpoint
ALTER TABLE "store_item" ADD CONSTRAINT "store_item_price_sane" CHECK (price_minor >= 0);