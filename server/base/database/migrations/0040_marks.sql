CREATE TABLE "confirmed_cause" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"cause" text NOT NULL,
	"part" text,
	"found_on" date NOT NULL,
	"person_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "confirmed_cause_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "confirmed_cause_known" CHECK (cause in ('nothing', 'dust', 'fan', 'paste', 'block', 'radiator', 'pump', 'kink', 'air-inside', 'coolant'))
);
--> statement-breakpoint
ALTER TABLE "confirmed_cause" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "level_reading" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"loop_id" uuid NOT NULL,
	"read_on" date NOT NULL,
	"level_mm" double precision NOT NULL,
	"person_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "level_reading_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "level_reading_sane" CHECK (level_mm between -500 and 500)
);
--> statement-breakpoint
ALTER TABLE "level_reading" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "machine_mark" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"part" text,
	"done_on" date NOT NULL,
	"person_id" uuid NOT NULL,
	"job_id" uuid,
	"struck_at" timestamp with time zone,
	CONSTRAINT "machine_mark_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "machine_mark_kind_known" CHECK (kind in ('paste', 'part'))
);
--> statement-breakpoint
ALTER TABLE "machine_mark" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "confirmed_cause" ADD CONSTRAINT "confirmed_cause_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "confirmed_cause" ADD CONSTRAINT "confirmed_cause_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "level_reading" ADD CONSTRAINT "level_reading_loop_fk" FOREIGN KEY ("workshop_id","loop_id") REFERENCES "public"."loop"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "level_reading" ADD CONSTRAINT "level_reading_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_mark" ADD CONSTRAINT "machine_mark_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_mark" ADD CONSTRAINT "machine_mark_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_mark" ADD CONSTRAINT "machine_mark_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "confirmed_cause_by_system" ON "confirmed_cause" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "level_reading_by_loop" ON "level_reading" USING btree ("workshop_id","loop_id");--> statement-breakpoint
CREATE INDEX "machine_mark_by_system" ON "machine_mark" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE POLICY "confirmed_cause_own_workshop" ON "confirmed_cause" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "level_reading_own_workshop" ON "level_reading" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "machine_mark_own_workshop" ON "machine_mark" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);