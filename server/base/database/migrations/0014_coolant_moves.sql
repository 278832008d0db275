CREATE TABLE "coolant_move" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"batch_id" uuid NOT NULL,
	"event_id" uuid NOT NULL,
	"change_ml" double precision NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "coolant_move_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "coolant_move" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "coolant_move" ADD CONSTRAINT "coolant_move_batch_fk" FOREIGN KEY ("workshop_id","batch_id") REFERENCES "public"."coolant_batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coolant_move" ADD CONSTRAINT "coolant_move_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "coolant_move_by_event" ON "coolant_move" USING btree ("workshop_id","event_id");--> statement-breakpoint
CREATE POLICY "coolant_move_own_workshop" ON "coolant_move" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);