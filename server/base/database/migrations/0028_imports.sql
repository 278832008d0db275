CREATE TABLE "import_batch" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"kind" text NOT NULL,
	"file_name" text DEFAULT '' NOT NULL,
	"counts" jsonb NOT NULL,
	"person_id" uuid NOT NULL,
	"undone_at" timestamp with time zone,
	CONSTRAINT "import_batch_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "import_batch" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "loop_revision" DROP CONSTRAINT "loop_revision_kind_known";--> statement-breakpoint
ALTER TABLE "fill" ALTER COLUMN "poured_ml" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "done_by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "owner" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "system" ADD COLUMN "tag" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "system" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "fill" ADD COLUMN "promised_on" date;--> statement-breakpoint
ALTER TABLE "usage_reading" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "import_batch" ADD CONSTRAINT "import_batch_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD CONSTRAINT "coolant_product_import_fk" FOREIGN KEY ("workshop_id","import_id") REFERENCES "public"."import_batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_import_fk" FOREIGN KEY ("workshop_id","import_id") REFERENCES "public"."import_batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "owner" ADD CONSTRAINT "owner_import_fk" FOREIGN KEY ("workshop_id","import_id") REFERENCES "public"."import_batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "system" ADD CONSTRAINT "system_import_fk" FOREIGN KEY ("workshop_id","import_id") REFERENCES "public"."import_batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usage_reading" ADD CONSTRAINT "usage_reading_import_fk" FOREIGN KEY ("workshop_id","import_id") REFERENCES "public"."import_batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "loop_revision" ADD CONSTRAINT "loop_revision_kind_known" CHECK (kind in ('planned', 'as-built', 'change', 'stated'));--> statement-breakpoint
CREATE POLICY "import_batch_own_workshop" ON "import_batch" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
-- What a table stated of a loop that nobody drew may be taken back with its import; what somebody drew, and what a run refers to, may not.
CREATE FUNCTION refuse_rewrite_of_drawn() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'DELETE' AND OLD.kind = 'stated' AND NOT EXISTS (SELECT 1 FROM run WHERE run.revision_id = OLD.id) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION '% is written once: add to it instead', TG_TABLE_NAME USING ERRCODE = 'LC001';
END
$$;
--> statement-breakpoint
DROP TRIGGER loop_revision_written_once ON loop_revision;
--> statement-breakpoint
CREATE TRIGGER loop_revision_written_once BEFORE UPDATE OR DELETE ON loop_revision FOR EACH ROW EXECUTE FUNCTION refuse_rewrite_of_drawn();
--> statement-breakpoint
GRANT DELETE ON loop_revision TO lavacrum_app;
