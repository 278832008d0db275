ALTER TABLE "system" DROP CONSTRAINT "system_state_known";--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "waits" jsonb;--> statement-breakpoint
ALTER TABLE "system" ADD CONSTRAINT "system_state_known" CHECK (state in ('planned', 'on-bench', 'waiting', 'in-service', 'retired'));--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_waits_off_its_bench" CHECK (waits is null or (state = 'active' and bench_id is null and job_id is not null));