ALTER TABLE "procedure_version" DROP CONSTRAINT "procedure_number_once";--> statement-breakpoint
ALTER TABLE "procedure_version" ADD COLUMN "kind" text DEFAULT 'commissioning' NOT NULL;--> statement-breakpoint
ALTER TABLE "procedure_version" ADD CONSTRAINT "procedure_number_once" UNIQUE("workshop_id","kind","number");