CREATE TABLE "loop_contents" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"loop_id" uuid NOT NULL,
	"run_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"contents" jsonb NOT NULL,
	CONSTRAINT "loop_contents_once" UNIQUE("workshop_id","loop_id"),
	CONSTRAINT "loop_contents_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "loop_contents" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "loop_contents" ADD CONSTRAINT "loop_contents_loop_fk" FOREIGN KEY ("workshop_id","loop_id") REFERENCES "public"."loop"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "loop_contents" ADD CONSTRAINT "loop_contents_run_fk" FOREIGN KEY ("workshop_id","run_id") REFERENCES "public"."run"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE POLICY "loop_contents_own_workshop" ON "loop_contents" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);