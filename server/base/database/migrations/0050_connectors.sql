ALTER TABLE "system" ADD COLUMN "electrical" jsonb;--> statement-breakpoint
ALTER TABLE "system" ADD COLUMN "electrical_version" integer DEFAULT 0 NOT NULL;