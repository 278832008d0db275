CREATE TABLE "bench_access" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"bench_id" uuid NOT NULL,
	"simulated" boolean NOT NULL,
	"secret_hash" text NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "bench_access_once" UNIQUE("bench_id","simulated"),
	CONSTRAINT "bench_access_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "bench_access" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "instrument" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"bench_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"online" boolean NOT NULL,
	"resolution" double precision,
	"simulated" boolean NOT NULL,
	"problem" text,
	"changed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "instrument_once" UNIQUE("bench_id","kind"),
	CONSTRAINT "instrument_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "instrument_kind_known" CHECK (kind in ('gauge', 'level', 'flow', 'coolant-temp', 'room-temp', 'scale', 'supply'))
);
--> statement-breakpoint
ALTER TABLE "instrument" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "instrument_reading" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"workshop_id" uuid NOT NULL,
	"bench_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"value" double precision NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "instrument_reading" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "practice" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"run_id" uuid NOT NULL,
	"scenario" text NOT NULL,
	"seed" integer NOT NULL,
	"ahead_ms" bigint DEFAULT 0 NOT NULL,
	"report" jsonb,
	"debrief" jsonb,
	CONSTRAINT "practice_once" UNIQUE("run_id"),
	CONSTRAINT "practice_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "practice_ahead_sane" CHECK (ahead_ms >= 0)
);
--> statement-breakpoint
ALTER TABLE "practice" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "reading" DROP CONSTRAINT "reading_source_known";--> statement-breakpoint
DROP INDEX "run_one_active_per_loop";--> statement-breakpoint
ALTER TABLE "run" ALTER COLUMN "job_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "bench_access" ADD CONSTRAINT "bench_access_bench_fk" FOREIGN KEY ("workshop_id","bench_id") REFERENCES "public"."bench"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bench_access" ADD CONSTRAINT "bench_access_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "instrument" ADD CONSTRAINT "instrument_bench_fk" FOREIGN KEY ("workshop_id","bench_id") REFERENCES "public"."bench"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "instrument_reading" ADD CONSTRAINT "instrument_reading_bench_fk" FOREIGN KEY ("workshop_id","bench_id") REFERENCES "public"."bench"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "practice" ADD CONSTRAINT "practice_run_fk" FOREIGN KEY ("workshop_id","run_id") REFERENCES "public"."run"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "instrument_reading_by_bench" ON "instrument_reading" USING btree ("workshop_id","bench_id","id");--> statement-breakpoint
CREATE INDEX "instrument_reading_by_time" ON "instrument_reading" USING btree ("at");--> statement-breakpoint
CREATE UNIQUE INDEX "run_one_active_per_loop" ON "run" USING btree ("workshop_id","loop_id") WHERE state = 'active' and job_id is not null;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_source_known" CHECK (source in ('hand', 'instrument', 'simulated', 'file'));--> statement-breakpoint
CREATE POLICY "bench_access_own_workshop" ON "bench_access" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "instrument_own_workshop" ON "instrument" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "instrument_reading_own_workshop" ON "instrument_reading" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "practice_own_workshop" ON "practice" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
GRANT USAGE ON SEQUENCE instrument_reading_id_seq TO lavacrum_app;
