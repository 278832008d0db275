CREATE TABLE "case_template" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"label" text NOT NULL,
	"depth_mm" double precision NOT NULL,
	"height_mm" double precision NOT NULL,
	"width_mm" double precision NOT NULL,
	"mounts" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "case_template_label_once" UNIQUE("workshop_id","label"),
	CONSTRAINT "case_template_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "case_template_sizes_positive" CHECK (depth_mm > 0 and height_mm > 0 and width_mm > 0)
);
--> statement-breakpoint
ALTER TABLE "case_template" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD COLUMN "glycol" text;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD COLUMN "glycol_fraction" double precision;--> statement-breakpoint
ALTER TABLE "case_template" ADD CONSTRAINT "case_template_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD CONSTRAINT "coolant_glycol_whole" CHECK ((glycol is null) = (glycol_fraction is null));--> statement-breakpoint
ALTER TABLE "coolant_product" ADD CONSTRAINT "coolant_glycol_known" CHECK (glycol in ('ethylene', 'propylene') and glycol_fraction > 0 and glycol_fraction <= 0.6);--> statement-breakpoint
CREATE POLICY "case_template_own_workshop" ON "case_template" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);