ALTER TABLE "message" DROP CONSTRAINT "message_template_known";--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "calendar" text;--> statement-breakpoint
ALTER TABLE "stand_in_mail" ADD COLUMN "attached" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_template_known" CHECK (template in ('due-soon', 'ready', 'parts-late', 'slot', 'moved', 'cancelled', 'missed', 'limit', 'risk'));--> statement-breakpoint
-- jobs from before anybody wrote down who came and went: what was worked on was here, and what was done went home
UPDATE "service_job" s SET "brought_on" = (j."created_at" AT TIME ZONE 'UTC')::date FROM "job" j WHERE j."id" = s."job_id" AND j."state" IN ('active', 'done');--> statement-breakpoint
UPDATE "service_job" s SET "fetched_on" = j."done_on" FROM "job" j WHERE j."id" = s."job_id" AND j."state" = 'done';
