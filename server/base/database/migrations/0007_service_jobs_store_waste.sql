CREATE TABLE "consent" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"estimate" jsonb NOT NULL,
	"estimate_number" integer NOT NULL,
	"how" text NOT NULL,
	"words" text DEFAULT '' NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "consent_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "consent_how_known" CHECK (how in ('phone', 'email', 'text', 'in-person'))
);
--> statement-breakpoint
ALTER TABLE "consent" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "service_job" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"job_id" uuid NOT NULL,
	"loop_id" uuid NOT NULL,
	"part_id" text,
	"intake" jsonb NOT NULL,
	"estimate" jsonb NOT NULL,
	"estimate_number" integer DEFAULT 1 NOT NULL,
	"needed_by" date,
	"due_item_id" uuid,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "service_job_once" UNIQUE("job_id"),
	CONSTRAINT "service_job_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "service_job" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "photo" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"job_id" uuid,
	"caption" text DEFAULT '' NOT NULL,
	"media_type" text NOT NULL,
	"image" "bytea" NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "photo_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "photo_type_known" CHECK (media_type in ('image/jpeg', 'image/png', 'image/webp'))
);
--> statement-breakpoint
ALTER TABLE "photo" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "kept_part" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"system_id" uuid,
	"job_id" uuid,
	"place" text DEFAULT '' NOT NULL,
	"condition" text DEFAULT '' NOT NULL,
	"held_ml" double precision DEFAULT 0 NOT NULL,
	"lent_to" text DEFAULT '' NOT NULL,
	"until_day" date,
	"gone_on" date,
	"gone_where" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "kept_part_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "kept_part_kind_known" CHECK (kind in ('removed', 'lent', 'loan-machine')),
	CONSTRAINT "kept_part_held_sane" CHECK (held_ml >= 0)
);
--> statement-breakpoint
ALTER TABLE "kept_part" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "store_item" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"unit" text NOT NULL,
	"lot" text DEFAULT '' NOT NULL,
	"count" double precision NOT NULL,
	"reorder_at" double precision DEFAULT 0 NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "store_item_once" UNIQUE("workshop_id","name","lot"),
	CONSTRAINT "store_item_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "store_item_kind_known" CHECK (kind in ('seal', 'tube', 'plug', 'screw', 'fitting', 'part', 'paste', 'cleaner', 'water', 'other')),
	CONSTRAINT "store_item_unit_known" CHECK (unit in ('pcs', 'm', 'mL', 'g'))
);
--> statement-breakpoint
ALTER TABLE "store_item" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "store_move" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"item_id" uuid NOT NULL,
	"change" double precision NOT NULL,
	"job_id" uuid,
	"reason" text NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "store_move_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "store_move_not_nothing" CHECK (change <> 0)
);
--> statement-breakpoint
ALTER TABLE "store_move" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "waste_container" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"label" text NOT NULL,
	"kind" text NOT NULL,
	"capacity_ml" double precision NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"handed_on" date,
	"handed_to" text DEFAULT '' NOT NULL,
	"document_number" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "waste_container_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "waste_kind_known" CHECK (kind in ('used-coolant', 'rinse-water', 'cleaner', 'mixed')),
	CONSTRAINT "waste_state_known" CHECK (state in ('open', 'handed-over')),
	CONSTRAINT "waste_capacity_positive" CHECK (capacity_ml > 0),
	CONSTRAINT "waste_handed_has_day" CHECK ((state = 'handed-over') = (handed_on is not null))
);
--> statement-breakpoint
ALTER TABLE "waste_container" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "waste_entry" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"container_id" uuid NOT NULL,
	"job_id" uuid,
	"volume_ml" double precision NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "waste_entry_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "waste_entry_not_nothing" CHECK (volume_ml <> 0)
);
--> statement-breakpoint
ALTER TABLE "waste_entry" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "job" DROP CONSTRAINT "job_kind_known";--> statement-breakpoint
ALTER TABLE "job" DROP CONSTRAINT "job_state_known";--> statement-breakpoint
ALTER TABLE "fill" ADD COLUMN "interval_share" double precision DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "fill" ADD COLUMN "interval_reason" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "coolant_batch" ADD COLUMN "keeps_until" date;--> statement-breakpoint
ALTER TABLE "coolant_batch" ADD COLUMN "stock_ml" double precision;--> statement-breakpoint
ALTER TABLE "coolant_batch" ADD COLUMN "sample_place" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD COLUMN "inhibitor" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD COLUMN "least_fraction" double precision;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD COLUMN "reorder_bottles" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "consent" ADD CONSTRAINT "consent_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "consent" ADD CONSTRAINT "consent_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_loop_fk" FOREIGN KEY ("workshop_id","loop_id") REFERENCES "public"."loop"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_due_fk" FOREIGN KEY ("workshop_id","due_item_id") REFERENCES "public"."due_item"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_part" ADD CONSTRAINT "kept_part_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_part" ADD CONSTRAINT "kept_part_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "store_item" ADD CONSTRAINT "store_item_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "store_move" ADD CONSTRAINT "store_move_item_fk" FOREIGN KEY ("workshop_id","item_id") REFERENCES "public"."store_item"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "store_move" ADD CONSTRAINT "store_move_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "store_move" ADD CONSTRAINT "store_move_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "waste_container" ADD CONSTRAINT "waste_container_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "waste_entry" ADD CONSTRAINT "waste_entry_container_fk" FOREIGN KEY ("workshop_id","container_id") REFERENCES "public"."waste_container"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "waste_entry" ADD CONSTRAINT "waste_entry_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "waste_entry" ADD CONSTRAINT "waste_entry_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "service_job_by_loop" ON "service_job" USING btree ("workshop_id","loop_id");--> statement-breakpoint
CREATE INDEX "photo_by_system" ON "photo" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "store_move_by_item" ON "store_move" USING btree ("workshop_id","item_id");--> statement-breakpoint
CREATE INDEX "waste_entry_by_container" ON "waste_entry" USING btree ("workshop_id","container_id");--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_share_sane" CHECK (interval_share > 0 and interval_share <= 1);--> statement-breakpoint
ALTER TABLE "coolant_batch" ADD CONSTRAINT "coolant_batch_stock_sane" CHECK (stock_ml >= 0);--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_kind_known" CHECK (kind in ('commissioning', 'drain-refill', 'flush-refill', 'strip-clean', 'leak-repair', 'top-up', 'closed-loop', 'partial-drain', 'part-replacement', 'conversion', 'retirement', 'settling-check'));--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_state_known" CHECK (state in ('booked', 'active', 'waiting', 'done', 'cancelled'));--> statement-breakpoint
CREATE POLICY "consent_own_workshop" ON "consent" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "service_job_own_workshop" ON "service_job" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "photo_own_workshop" ON "photo" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "kept_part_own_workshop" ON "kept_part" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "store_item_own_workshop" ON "store_item" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "store_move_own_workshop" ON "store_move" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "waste_container_own_workshop" ON "waste_container" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "waste_entry_own_workshop" ON "waste_entry" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE TRIGGER consent_written_once BEFORE UPDATE OR DELETE ON consent FOR EACH ROW EXECUTE FUNCTION refuse_rewrite();--> statement-breakpoint
CREATE TRIGGER photo_written_once BEFORE UPDATE OR DELETE ON photo FOR EACH ROW EXECUTE FUNCTION refuse_rewrite();--> statement-breakpoint
CREATE TRIGGER store_move_written_once BEFORE UPDATE OR DELETE ON store_move FOR EACH ROW EXECUTE FUNCTION refuse_rewrite();--> statement-breakpoint
CREATE TRIGGER waste_entry_written_once BEFORE UPDATE OR DELETE ON waste_entry FOR EACH ROW EXECUTE FUNCTION refuse_rewrite();
--> statement-breakpoint
REVOKE UPDATE, DELETE ON consent, photo, store_move, waste_entry FROM lavacrum_app;
