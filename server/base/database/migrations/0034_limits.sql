CREATE TABLE "limit_change" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"product_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"before" jsonb NOT NULL,
	"after" jsonb NOT NULL,
	"moved" jsonb NOT NULL,
	"told" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"undone_at" timestamp with time zone,
	CONSTRAINT "limit_change_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "limit_change" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "limit_change" ADD CONSTRAINT "limit_change_product_fk" FOREIGN KEY ("workshop_id","product_id") REFERENCES "public"."coolant_product"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "limit_change" ADD CONSTRAINT "limit_change_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "limit_change_by_product" ON "limit_change" USING btree ("workshop_id","product_id");--> statement-breakpoint
CREATE POLICY "limit_change_own_workshop" ON "limit_change" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);