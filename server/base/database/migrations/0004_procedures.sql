CREATE TABLE "procedure_version" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"number" integer NOT NULL,
	"template" jsonb NOT NULL,
	"note" text NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "procedure_number_once" UNIQUE("workshop_id","number"),
	CONSTRAINT "procedure_version_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "procedure_number_positive" CHECK (number > 0)
);
--> statement-breakpoint
ALTER TABLE "procedure_version" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "procedure_version" ADD CONSTRAINT "procedure_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE POLICY "procedure_version_own_workshop" ON "procedure_version" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE TRIGGER procedure_version_written_once BEFORE UPDATE OR DELETE ON procedure_version FOR EACH ROW EXECUTE FUNCTION refuse_rewrite();
--> statement-breakpoint
REVOKE UPDATE, DELETE ON procedure_version FROM lavacrum_app;
