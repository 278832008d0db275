CREATE TABLE "door_entry" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"link_id" uuid NOT NULL,
	"system_id" uuid NOT NULL,
	"job_id" uuid,
	"said" jsonb NOT NULL,
	"answered_at" timestamp with time zone,
	"answered_by" uuid,
	"taken" boolean,
	"answer" text DEFAULT '' NOT NULL,
	CONSTRAINT "door_entry_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "door_entry_answered_whole" CHECK ((answered_at is null) = (answered_by is null) and (answered_at is null) = (taken is null))
);
--> statement-breakpoint
ALTER TABLE "door_entry" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "door_file" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"entry_id" uuid NOT NULL,
	"media_type" text NOT NULL,
	"content" "bytea" NOT NULL,
	CONSTRAINT "door_file_once" UNIQUE("entry_id"),
	CONSTRAINT "door_file_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "door_file_type_known" CHECK (media_type in ('image/jpeg', 'text/csv'))
);
--> statement-breakpoint
ALTER TABLE "door_file" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "owner_link" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"job_id" uuid,
	"secret_hash" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"seen_at" timestamp with time zone,
	"person_id" uuid,
	CONSTRAINT "owner_link_secret_once" UNIQUE("secret_hash"),
	CONSTRAINT "owner_link_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "owner_link" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "slot_offer" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"bench_id" uuid NOT NULL,
	"starts_at" timestamp with time zone NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	"steps" jsonb NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "slot_offer_once" UNIQUE("job_id","starts_at"),
	CONSTRAINT "slot_offer_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "slot_offer_in_order" CHECK (starts_at < ends_at)
);
--> statement-breakpoint
ALTER TABLE "slot_offer" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "consent" DROP CONSTRAINT "consent_how_known";--> statement-breakpoint
ALTER TABLE "message" DROP CONSTRAINT "message_template_known";--> statement-breakpoint
ALTER TABLE "consent" ALTER COLUMN "person_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "consent" ADD COLUMN "name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "estimate_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "asked" jsonb;--> statement-breakpoint
ALTER TABLE "owner" ADD COLUMN "reading" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "way" text DEFAULT 'email' NOT NULL;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "has_link" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "stand_in_mail" ADD COLUMN "way" text DEFAULT 'email' NOT NULL;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "door" jsonb DEFAULT '{"open":true,"without":[],"prices":true}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "waits_for" text GENERATED ALWAYS AS (waits ->> 'for') STORED;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "waits_until" text GENERATED ALWAYS AS (waits ->> 'until') STORED;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "stage" text;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "stage_ends_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "door_entry" ADD CONSTRAINT "door_entry_link_fk" FOREIGN KEY ("workshop_id","link_id") REFERENCES "public"."owner_link"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_entry" ADD CONSTRAINT "door_entry_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_entry" ADD CONSTRAINT "door_entry_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_entry" ADD CONSTRAINT "door_entry_person_fk" FOREIGN KEY ("workshop_id","answered_by") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_file" ADD CONSTRAINT "door_file_entry_fk" FOREIGN KEY ("workshop_id","entry_id") REFERENCES "public"."door_entry"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "owner_link" ADD CONSTRAINT "owner_link_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "owner_link" ADD CONSTRAINT "owner_link_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "owner_link" ADD CONSTRAINT "owner_link_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "slot_offer" ADD CONSTRAINT "slot_offer_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "slot_offer" ADD CONSTRAINT "slot_offer_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "slot_offer" ADD CONSTRAINT "slot_offer_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "door_entry_by_system" ON "door_entry" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "door_entry_unread" ON "door_entry" USING btree ("workshop_id","created_at") WHERE answered_at is null;--> statement-breakpoint
CREATE INDEX "owner_link_by_system" ON "owner_link" USING btree ("workshop_id","system_id");--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "consent" ADD CONSTRAINT "consent_page_named" CHECK ((how = 'page') = (person_id is null) and (how <> 'page' or length(trim(name)) > 0));--> statement-breakpoint
ALTER TABLE "consent" ADD CONSTRAINT "consent_how_known" CHECK (how in ('phone', 'email', 'text', 'in-person', 'page'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_way_known" CHECK (way in ('email', 'text'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_template_known" CHECK (template in ('due-soon', 'ready', 'parts-late', 'slot', 'moved', 'cancelled', 'missed', 'limit', 'risk', 'lot', 'estimate', 'larger', 'offers', 'level'));--> statement-breakpoint
CREATE POLICY "door_entry_door" ON "door_entry" AS PERMISSIVE FOR ALL TO "lavacrum_door" USING (link_id = (select id from owner_link)) WITH CHECK (link_id = (select id from owner_link) and system_id = (select system_id from owner_link) and workshop_id = (select workshop_id from owner_link) and answered_at is null);--> statement-breakpoint
CREATE POLICY "door_entry_own_workshop" ON "door_entry" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid)) WITH CHECK (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid));--> statement-breakpoint
CREATE POLICY "door_file_door" ON "door_file" AS PERMISSIVE FOR INSERT TO "lavacrum_door" WITH CHECK (workshop_id = (select workshop_id from owner_link) and entry_id in (select id from door_entry));--> statement-breakpoint
CREATE POLICY "door_file_own_workshop" ON "door_file" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid)) WITH CHECK (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid));--> statement-breakpoint
CREATE POLICY "owner_link_door" ON "owner_link" AS PERMISSIVE FOR ALL TO "lavacrum_door" USING (secret_hash = (select nullif(current_setting('lavacrum.door', true), '')));--> statement-breakpoint
CREATE POLICY "owner_link_own_workshop" ON "owner_link" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid)) WITH CHECK (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid));--> statement-breakpoint
CREATE POLICY "slot_offer_door" ON "slot_offer" AS PERMISSIVE FOR SELECT TO "lavacrum_door" USING (job_id in (select id from job));--> statement-breakpoint
CREATE POLICY "slot_offer_own_workshop" ON "slot_offer" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid)) WITH CHECK (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid));