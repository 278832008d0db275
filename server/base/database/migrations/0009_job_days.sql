ALTER TABLE "service_job" ADD COLUMN "parts_on" date;--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "drop_off_on" date;