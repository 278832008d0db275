CREATE TABLE "owner_report" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"run_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"facts" jsonb NOT NULL,
	"photo_ids" uuid[] DEFAULT '{}' NOT NULL,
	CONSTRAINT "owner_report_run_once" UNIQUE("run_id"),
	CONSTRAINT "owner_report_number_once" UNIQUE("system_id","number"),
	CONSTRAINT "owner_report_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "owner_report" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "owner_report" ADD CONSTRAINT "owner_report_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "owner_report" ADD CONSTRAINT "owner_report_run_fk" FOREIGN KEY ("workshop_id","run_id") REFERENCES "public"."run"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE POLICY "owner_report_door" ON "owner_report" AS PERMISSIVE FOR SELECT TO "lavacrum_door" USING (system_id = (select system_id from owner_link));--> statement-breakpoint
CREATE POLICY "owner_report_own_workshop" ON "owner_report" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid)) WITH CHECK (workshop_id = (select nullif(current_setting('lavacrum.workshop', true), '')::uuid));