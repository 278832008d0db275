CREATE TABLE "kit_learned" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"key" text NOT NULL,
	"missed_on" date NOT NULL,
	"gone_at" timestamp with time zone,
	CONSTRAINT "kit_learned_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "kit_learned_named" CHECK (length(trim(name)) > 0)
);
--> statement-breakpoint
ALTER TABLE "kit_learned" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "kit_learned" ADD CONSTRAINT "kit_learned_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "kit_learned_once" ON "kit_learned" USING btree ("workshop_id","kind","key");--> statement-breakpoint
CREATE POLICY "kit_learned_own_workshop" ON "kit_learned" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);