ALTER TABLE "waste_container" ADD COLUMN "carrier" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "waste_container" ADD COLUMN "waste_code" text DEFAULT '' NOT NULL;