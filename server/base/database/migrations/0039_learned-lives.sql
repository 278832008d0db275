CREATE TABLE "early_lot" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"lot_id" uuid,
	"make" text DEFAULT '' NOT NULL,
	"lot" text DEFAULT '' NOT NULL,
	"seen_on" date NOT NULL,
	"over_on" date,
	"machines" integer NOT NULL,
	"observed" integer NOT NULL,
	"expected" double precision NOT NULL,
	"p" double precision NOT NULL,
	"told" jsonb DEFAULT '[]'::jsonb NOT NULL,
	CONSTRAINT "early_lot_once" UNIQUE NULLS NOT DISTINCT("workshop_id","lot_id","make","lot"),
	CONSTRAINT "early_lot_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "early_lot_is_one" CHECK ((lot_id is null) = (make <> '' and lot <> ''))
);
--> statement-breakpoint
ALTER TABLE "early_lot" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "learned_life" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"by" text NOT NULL,
	"key" text NOT NULL,
	"fills" integer NOT NULL,
	"failed" integer NOT NULL,
	"months" double precision,
	"low_months" double precision,
	"life" jsonb NOT NULL,
	CONSTRAINT "learned_life_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "learned_life_by_known" CHECK (by in ('class', 'product', 'lot', 'tube', 'metals')),
	CONSTRAINT "learned_life_months_whole" CHECK ((months is null) = (low_months is null))
);
--> statement-breakpoint
ALTER TABLE "learned_life" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "message" DROP CONSTRAINT "message_template_known";--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "life_risk" double precision DEFAULT 0.05 NOT NULL;--> statement-breakpoint
ALTER TABLE "early_lot" ADD CONSTRAINT "early_lot_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "early_lot" ADD CONSTRAINT "early_lot_lot_fk" FOREIGN KEY ("workshop_id","lot_id") REFERENCES "public"."coolant_lot"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "learned_life" ADD CONSTRAINT "learned_life_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_template_known" CHECK (template in ('due-soon', 'ready', 'parts-late', 'slot', 'moved', 'cancelled', 'missed', 'limit', 'risk', 'lot'));--> statement-breakpoint
ALTER TABLE "workshop" ADD CONSTRAINT "workshop_risk_sane" CHECK (life_risk >= 0.01 and life_risk <= 0.5);--> statement-breakpoint
CREATE POLICY "early_lot_own_workshop" ON "early_lot" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "learned_life_own_workshop" ON "learned_life" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);