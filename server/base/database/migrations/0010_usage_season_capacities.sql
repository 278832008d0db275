CREATE TABLE "fitted_part" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"loop_id" uuid NOT NULL,
	"item_id" text,
	"make" text NOT NULL,
	"lot" text NOT NULL,
	"fitted_on" date NOT NULL,
	"job_id" uuid,
	"gone_on" date,
	CONSTRAINT "fitted_part_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "fitted_part_named" CHECK (length(trim(make)) > 0 and length(trim(lot)) > 0),
	CONSTRAINT "fitted_part_days_in_order" CHECK (gone_on is null or gone_on >= fitted_on)
);
--> statement-breakpoint
ALTER TABLE "fitted_part" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "kit" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"kind" text NOT NULL,
	"count" integer NOT NULL,
	CONSTRAINT "kit_once" UNIQUE("workshop_id","kind"),
	CONSTRAINT "kit_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "kit_kind_known" CHECK (kind in ('pump-supply', 'pressure-tester', 'flush-rig')),
	CONSTRAINT "kit_count_sane" CHECK (count between 0 and 100)
);
--> statement-breakpoint
ALTER TABLE "kit" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "usage_reading" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"source" text NOT NULL,
	"from_on" date,
	"read_on" date NOT NULL,
	"hours" double precision NOT NULL,
	"mean_coolant_c" double precision,
	"note" text DEFAULT '' NOT NULL,
	"person_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "usage_reading_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "usage_reading_source_known" CHECK (source in ('meter', 'log')),
	CONSTRAINT "usage_reading_log_has_days" CHECK ((source = 'log') = (from_on is not null) and (from_on is null or from_on <= read_on)),
	CONSTRAINT "usage_reading_hours_sane" CHECK (hours >= 0 and hours <= 200000)
);
--> statement-breakpoint
ALTER TABLE "usage_reading" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "coolant_product" DROP CONSTRAINT "coolant_life_positive";--> statement-breakpoint
ALTER TABLE "due_item" DROP CONSTRAINT "due_kind_known";--> statement-breakpoint
ALTER TABLE "message" DROP CONSTRAINT "message_template_known";--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "skills" jsonb;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "hot_from_month" integer;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "hot_until_month" integer;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD COLUMN "sheet_life_hours" double precision;--> statement-breakpoint
ALTER TABLE "due_item" ADD COLUMN "since_on" date;--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "windows" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "system" ADD COLUMN "coolant_c" double precision;--> statement-breakpoint
ALTER TABLE "system" ADD COLUMN "dust_place" text DEFAULT 'usual' NOT NULL;--> statement-breakpoint
ALTER TABLE "fitted_part" ADD CONSTRAINT "fitted_part_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fitted_part" ADD CONSTRAINT "fitted_part_loop_fk" FOREIGN KEY ("workshop_id","loop_id") REFERENCES "public"."loop"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fitted_part" ADD CONSTRAINT "fitted_part_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kit" ADD CONSTRAINT "kit_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usage_reading" ADD CONSTRAINT "usage_reading_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usage_reading" ADD CONSTRAINT "usage_reading_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "fitted_part_by_lot" ON "fitted_part" USING btree ("workshop_id","make","lot");--> statement-breakpoint
CREATE INDEX "fitted_part_by_system" ON "fitted_part" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "usage_reading_by_system" ON "usage_reading" USING btree ("workshop_id","system_id");--> statement-breakpoint
ALTER TABLE "workshop" ADD CONSTRAINT "workshop_season_whole" CHECK ((hot_from_month is null) = (hot_until_month is null));--> statement-breakpoint
ALTER TABLE "workshop" ADD CONSTRAINT "workshop_season_months" CHECK (hot_from_month between 1 and 12 and hot_until_month between 1 and 12);--> statement-breakpoint
ALTER TABLE "coolant_product" ADD CONSTRAINT "coolant_life_positive" CHECK (sheet_life_months > 0 and sheet_life_hours > 0);--> statement-breakpoint
ALTER TABLE "due_item" ADD CONSTRAINT "due_kind_known" CHECK (kind in ('coolant-service', 'settling-check', 'follow-up', 'dust-clean'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_template_known" CHECK (template in ('due-soon', 'ready', 'parts-late', 'slot', 'risk'));--> statement-breakpoint
ALTER TABLE "system" ADD CONSTRAINT "system_coolant_sane" CHECK (coolant_c >= 0 and coolant_c <= 90);--> statement-breakpoint
ALTER TABLE "system" ADD CONSTRAINT "system_dust_place_known" CHECK (dust_place in ('clean', 'usual', 'dusty'));--> statement-breakpoint
CREATE POLICY "fitted_part_own_workshop" ON "fitted_part" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "kit_own_workshop" ON "kit" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "usage_reading_own_workshop" ON "usage_reading" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);