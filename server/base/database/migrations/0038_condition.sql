CREATE TABLE "load_reading" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"log_id" uuid,
	"read_on" date NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"reading" jsonb NOT NULL,
	"person_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	CONSTRAINT "load_reading_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "load_reading" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "log_columns" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"columns" jsonb NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "log_columns_once" UNIQUE("workshop_id","system_id"),
	CONSTRAINT "log_columns_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "log_columns_name_given" CHECK (length(trim(name)) > 0)
);
--> statement-breakpoint
ALTER TABLE "log_columns" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "system" ADD COLUMN "condition" jsonb;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "heat_limits" jsonb DEFAULT '{"hotRoomC":32,"partC":{"processor":90,"graphics":85,"memory":95,"other":85},"riseShare":0.3}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "baseline" ADD COLUMN "before" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "load_reading" ADD CONSTRAINT "load_reading_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load_reading" ADD CONSTRAINT "load_reading_log_fk" FOREIGN KEY ("workshop_id","log_id") REFERENCES "public"."usage_reading"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load_reading" ADD CONSTRAINT "load_reading_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "log_columns" ADD CONSTRAINT "log_columns_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "load_reading_day_once" ON "load_reading" USING btree ("workshop_id","system_id","read_on") WHERE log_id is not null and struck_at is null;--> statement-breakpoint
CREATE INDEX "load_reading_by_system" ON "load_reading" USING btree ("workshop_id","system_id","read_on");--> statement-breakpoint
CREATE POLICY "load_reading_own_workshop" ON "load_reading" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "log_columns_own_workshop" ON "log_columns" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);