ALTER TABLE "due_item" DROP CONSTRAINT "due_kind_known";--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "beside" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "due_item" ADD CONSTRAINT "due_kind_known" CHECK (kind in ('coolant-service', 'settling-check', 'follow-up', 'dust-clean', 'paste-renewal'));