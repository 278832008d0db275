ALTER TABLE "coolant_lot" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;