ALTER TABLE "fill" ADD COLUMN "left_ml" double precision;--> statement-breakpoint
ALTER TABLE "fill" ADD COLUMN "left_sd_ml" double precision;--> statement-breakpoint
ALTER TABLE "fill" ADD COLUMN "taught_ml" double precision;--> statement-breakpoint
ALTER TABLE "fill" ADD COLUMN "taught_sd_ml" double precision;--> statement-breakpoint
ALTER TABLE "fill" ADD COLUMN "taught_verdict" text;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_taught_sane" CHECK ((taught_ml is null) = (taught_sd_ml is null) and taught_ml > 0 and taught_sd_ml > 0);--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_left_sane" CHECK ((left_ml is null) = (left_sd_ml is null) and left_sd_ml >= 0);--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_verdict_known" CHECK (taught_verdict in ('counts', 'left-out'));--> statement-breakpoint
-- first fills that were led before: they began dry, and what was poured is all that is known of them (jug and mark: 8 mL, 2 %, 15 mL)
UPDATE "fill" SET "taught_ml" = "poured_ml", "taught_sd_ml" = sqrt(64 + 0.0004 * "poured_ml" * "poured_ml" + 225)
FROM "run" WHERE "run"."workshop_id" = "fill"."workshop_id" AND "run"."id" = "fill"."run_id" AND jsonb_typeof("run"."procedure"::jsonb -> 'service') IS DISTINCT FROM 'object';
