ALTER TABLE "loop_revision" DROP CONSTRAINT "loop_revision_kind_known";--> statement-breakpoint
ALTER TABLE "job" DROP CONSTRAINT "job_kind_known";--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "wanted_revision_id" uuid;--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_wanted_fk" FOREIGN KEY ("workshop_id","wanted_revision_id") REFERENCES "public"."loop_revision"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "loop_revision" ADD CONSTRAINT "loop_revision_kind_known" CHECK (kind in ('planned', 'as-built', 'change', 'wanted', 'stated'));--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_kind_known" CHECK (kind in ('commissioning', 'drain-refill', 'flush-refill', 'strip-clean', 'leak-repair', 'top-up', 'closed-loop', 'partial-drain', 'part-replacement', 'loop-change', 'part-conversion', 'into-loop', 'conversion', 'retirement', 'settling-check'));