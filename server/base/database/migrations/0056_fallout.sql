CREATE TABLE "fallout_look" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"loop_id" uuid NOT NULL,
	"stage" text NOT NULL,
	"on_day" date NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"person_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "fallout_look_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "fallout_look_stage_known" CHECK (stage in ('comes-back', 'stays', 'bits'))
);
--> statement-breakpoint
ALTER TABLE "fallout_look" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "due_item" DROP CONSTRAINT "due_kind_known";--> statement-breakpoint
ALTER TABLE "system" DROP CONSTRAINT "system_hours_sane";--> statement-breakpoint
ALTER TABLE "fallout_look" ADD CONSTRAINT "fallout_look_loop_fk" FOREIGN KEY ("workshop_id","loop_id") REFERENCES "public"."loop"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fallout_look" ADD CONSTRAINT "fallout_look_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "fallout_look_by_loop" ON "fallout_look" USING btree ("workshop_id","loop_id");--> statement-breakpoint
ALTER TABLE "due_item" ADD CONSTRAINT "due_kind_known" CHECK (kind in ('coolant-service', 'settling-check', 'follow-up', 'dust-clean', 'paste-renewal', 'stirring'));--> statement-breakpoint
ALTER TABLE "system" ADD CONSTRAINT "system_hours_sane" CHECK (hours_per_day >= 0 and hours_per_day <= 24);--> statement-breakpoint
CREATE POLICY "fallout_look_own_workshop" ON "fallout_look" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);