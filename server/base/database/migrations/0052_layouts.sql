CREATE TABLE "loop_layout" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"name" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"file" jsonb NOT NULL,
	"gone_at" timestamp with time zone,
	CONSTRAINT "loop_layout_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "loop_layout_named" CHECK (length(trim(name)) > 0)
);
--> statement-breakpoint
ALTER TABLE "loop_layout" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "loop_layout" ADD CONSTRAINT "loop_layout_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "loop_layout_name_once" ON "loop_layout" USING btree ("workshop_id","name") WHERE gone_at is null;--> statement-breakpoint
CREATE POLICY "loop_layout_own_workshop" ON "loop_layout" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);