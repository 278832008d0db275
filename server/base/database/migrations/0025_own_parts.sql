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
	CONSTRAINT "own_part_label_once" UNIQUE("workshop_id","label"),
	CONSTRAINT "own_part_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "own_part_volume" CHECK (volume_ml >= 0 and (volume_sd_ml is null or volume_sd_ml >= 0))
);
--> statement-breakpoint
ALTER TABLE "own_part" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "own_part" ADD CONSTRAINT "own_part_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE POLICY "own_part_own_workshop" ON "own_part" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);