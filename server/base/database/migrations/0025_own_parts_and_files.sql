CREATE TABLE "kept_file" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid,
	"coolant_product_id" uuid,
	"own_part_id" uuid,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"media_type" text NOT NULL,
	"content" "bytea" NOT NULL,
	"person_id" uuid NOT NULL,
	"gone_at" timestamp with time zone,
	CONSTRAINT "kept_file_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "kept_file_of_one" CHECK (num_nonnulls(system_id, coolant_product_id, own_part_id) = 1),
	CONSTRAINT "kept_file_kind_known" CHECK (kind in ('sheet', 'safety-sheet', 'invoice', 'drawing', 'other')),
	CONSTRAINT "kept_file_type_known" CHECK (media_type in ('application/pdf', 'image/jpeg', 'image/png', 'image/webp', 'text/plain', 'text/csv'))
);
--> statement-breakpoint
ALTER TABLE "kept_file" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "own_part" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"label" text NOT NULL,
	"like_key" text NOT NULL,
	"volume_ml" double precision NOT NULL,
	"volume_sd_ml" double precision,
	"facts" jsonb NOT NULL,
	"geometry" jsonb,
	"version" integer DEFAULT 1 NOT NULL,
	"gone_at" timestamp with time zone,
	CONSTRAINT "own_part_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "own_part_volume" CHECK (volume_ml >= 0 and (volume_sd_ml is null or volume_sd_ml >= 0))
);
--> statement-breakpoint
ALTER TABLE "own_part" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "kept_file" ADD CONSTRAINT "kept_file_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_file" ADD CONSTRAINT "kept_file_coolant_fk" FOREIGN KEY ("workshop_id","coolant_product_id") REFERENCES "public"."coolant_product"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_file" ADD CONSTRAINT "kept_file_own_part_fk" FOREIGN KEY ("workshop_id","own_part_id") REFERENCES "public"."own_part"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_file" ADD CONSTRAINT "kept_file_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "own_part" ADD CONSTRAINT "own_part_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "kept_file_by_system" ON "kept_file" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "kept_file_by_coolant" ON "kept_file" USING btree ("workshop_id","coolant_product_id");--> statement-breakpoint
CREATE INDEX "kept_file_by_own_part" ON "kept_file" USING btree ("workshop_id","own_part_id");--> statement-breakpoint
CREATE UNIQUE INDEX "own_part_label_once" ON "own_part" USING btree ("workshop_id","label") WHERE gone_at is null;--> statement-breakpoint
CREATE POLICY "kept_file_own_workshop" ON "kept_file" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "own_part_own_workshop" ON "own_part" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);