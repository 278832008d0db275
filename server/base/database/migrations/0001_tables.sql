CREATE TABLE "bench" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"name" text NOT NULL,
	"position" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "bench_name_once" UNIQUE("workshop_id","name"),
	CONSTRAINT "bench_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "bench_name_given" CHECK (length(trim(name)) > 0)
);
--> statement-breakpoint
ALTER TABLE "bench" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "idempotency" (
	"workshop_id" uuid NOT NULL,
	"key" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"route" text NOT NULL,
	"request_hash" text NOT NULL,
	"status" integer NOT NULL,
	"answer" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "idempotency_once" UNIQUE("workshop_id","key")
);
--> statement-breakpoint
ALTER TABLE "idempotency" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "person" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"role" text NOT NULL,
	"password_hash" text NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	CONSTRAINT "person_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "person_role_known" CHECK (role in ('technician', 'lead', 'front-desk')),
	CONSTRAINT "person_email_lower" CHECK (email = lower(email))
);
--> statement-breakpoint
ALTER TABLE "person" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "session" (
	"sid" varchar PRIMARY KEY NOT NULL,
	"sess" json NOT NULL,
	"expire" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "workshop" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"time_zone" text NOT NULL,
	"schools" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "workshop_name_given" CHECK (length(trim(name)) > 0)
);
--> statement-breakpoint
ALTER TABLE "workshop" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "baseline" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"run_id" uuid NOT NULL,
	"revision_id" uuid NOT NULL,
	"reading" jsonb NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	CONSTRAINT "baseline_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "baseline" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "fill" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"revision_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"run_id" uuid,
	"product_id" uuid NOT NULL,
	"batch_id" uuid,
	"filled_on" date NOT NULL,
	"poured_ml" double precision NOT NULL,
	"drained_ml" double precision,
	CONSTRAINT "fill_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "fill_volume_sane" CHECK (poured_ml > 0 and drained_ml >= 0)
);
--> statement-breakpoint
ALTER TABLE "fill" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "reading" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"run_id" uuid NOT NULL,
	"revision_id" uuid NOT NULL,
	"event_id" uuid NOT NULL,
	"quantity" text NOT NULL,
	"value" double precision NOT NULL,
	"unit" text NOT NULL,
	"source" text DEFAULT 'hand' NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	CONSTRAINT "reading_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "reading_source_known" CHECK (source in ('hand', 'instrument', 'file'))
);
--> statement-breakpoint
ALTER TABLE "reading" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "run" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"job_id" uuid NOT NULL,
	"loop_id" uuid NOT NULL,
	"revision_id" uuid NOT NULL,
	"bench_id" uuid,
	"procedure" jsonb NOT NULL,
	"state" text DEFAULT 'active' NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"signed_off_at" timestamp with time zone,
	"person_id" uuid NOT NULL,
	CONSTRAINT "run_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "run_state_known" CHECK (state in ('active', 'signed-off', 'abandoned')),
	CONSTRAINT "run_signed_off_has_instant" CHECK ((state = 'signed-off') = (signed_off_at is not null))
);
--> statement-breakpoint
ALTER TABLE "run" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "run_event" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"run_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"happened_at" timestamp with time zone NOT NULL,
	"person_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "run_event_seq_once" UNIQUE("run_id","seq"),
	CONSTRAINT "run_event_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "run_event_seq_positive" CHECK (seq > 0),
	CONSTRAINT "run_event_has_type" CHECK (body ? 'type')
);
--> statement-breakpoint
ALTER TABLE "run_event" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "run_record" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"run_id" uuid NOT NULL,
	"record" jsonb NOT NULL,
	CONSTRAINT "run_record_once" UNIQUE("run_id"),
	CONSTRAINT "run_record_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "run_record" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "coolant_batch" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"product_id" uuid NOT NULL,
	"lot" text NOT NULL,
	"opened_on" date,
	CONSTRAINT "coolant_batch_lot_once" UNIQUE("workshop_id","product_id","lot"),
	CONSTRAINT "coolant_batch_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "coolant_batch" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "coolant_product" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"name" text NOT NULL,
	"coolant_class" text NOT NULL,
	"colour" text NOT NULL,
	"form" text NOT NULL,
	"target_fraction" double precision,
	"bottle_ml" double precision NOT NULL,
	"sheet_life_months" double precision,
	CONSTRAINT "coolant_product_name_once" UNIQUE("workshop_id","name"),
	CONSTRAINT "coolant_product_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "coolant_class_known" CHECK (coolant_class in ('show', 'opaque', 'clear', 'biocide')),
	CONSTRAINT "coolant_form_known" CHECK (form in ('ready-mix', 'concentrate')),
	CONSTRAINT "coolant_fraction_sane" CHECK (target_fraction > 0 and target_fraction <= 1),
	CONSTRAINT "coolant_concentrate_has_target" CHECK (form <> 'concentrate' or target_fraction is not null),
	CONSTRAINT "coolant_bottle_positive" CHECK (bottle_ml > 0),
	CONSTRAINT "coolant_life_positive" CHECK (sheet_life_months > 0)
);
--> statement-breakpoint
ALTER TABLE "coolant_product" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "due_item" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"loop_id" uuid NOT NULL,
	"fill_id" uuid,
	"kind" text NOT NULL,
	"window_from" date,
	"due_on" date NOT NULL,
	"reason" text NOT NULL,
	"estimated" boolean DEFAULT false NOT NULL,
	"clocks" jsonb NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"outcome" text DEFAULT '' NOT NULL,
	"closed_at" timestamp with time zone,
	"closed_by" uuid,
	"postponed" integer DEFAULT 0 NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "due_item_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "due_kind_known" CHECK (kind in ('coolant-service', 'settling-check', 'follow-up')),
	CONSTRAINT "due_state_known" CHECK (state in ('open', 'closed')),
	CONSTRAINT "due_closed_has_instant" CHECK ((state = 'closed') = (closed_at is not null)),
	CONSTRAINT "due_reason_given" CHECK (length(reason) > 0)
);
--> statement-breakpoint
ALTER TABLE "due_item" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "policy" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"customer_id" uuid,
	"system_id" uuid,
	"service" text NOT NULL,
	CONSTRAINT "policy_scope_once" UNIQUE NULLS NOT DISTINCT("workshop_id","customer_id","system_id"),
	CONSTRAINT "policy_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "policy_one_scope" CHECK (customer_id is null or system_id is null),
	CONSTRAINT "policy_service_known" CHECK (service in ('six-months', 'twelve-months', 'product-life'))
);
--> statement-breakpoint
ALTER TABLE "policy" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "postponement" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"due_item_id" uuid NOT NULL,
	"from_day" date NOT NULL,
	"until_day" date NOT NULL,
	"reason" text NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "postponement_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "postponement_reason_given" CHECK (length(trim(reason)) > 0)
);
--> statement-breakpoint
ALTER TABLE "postponement" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "component" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"revision_id" uuid NOT NULL,
	"ref" text NOT NULL,
	"kind" text NOT NULL,
	"label" text NOT NULL,
	"catalogue_key" text,
	"position" integer NOT NULL,
	"volume_ml" double precision NOT NULL,
	"volume_sd_ml" double precision NOT NULL,
	CONSTRAINT "component_ref_once" UNIQUE("revision_id","ref"),
	CONSTRAINT "component_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "component_volume_sane" CHECK (volume_ml >= 0 and volume_sd_ml >= 0)
);
--> statement-breakpoint
ALTER TABLE "component" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "loop" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"name" text NOT NULL,
	"coolant_product_id" uuid,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "loop_tenant_key" UNIQUE("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "loop" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "loop_revision" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"loop_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"kind" text NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"person_id" uuid NOT NULL,
	"file" jsonb NOT NULL,
	"volume_ml" double precision NOT NULL,
	"volume_sd_ml" double precision NOT NULL,
	CONSTRAINT "loop_revision_number_once" UNIQUE("loop_id","number"),
	CONSTRAINT "loop_revision_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "loop_revision_kind_known" CHECK (kind in ('planned', 'as-built', 'change')),
	CONSTRAINT "loop_revision_number_positive" CHECK (number > 0),
	CONSTRAINT "loop_revision_volume_sane" CHECK (volume_ml >= 0 and volume_sd_ml >= 0)
);
--> statement-breakpoint
ALTER TABLE "loop_revision" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "tube" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"revision_id" uuid NOT NULL,
	"ref" text NOT NULL,
	"material" text NOT NULL,
	"bore_mm" double precision NOT NULL,
	"outer_mm" double precision NOT NULL,
	"length_mm" double precision NOT NULL,
	CONSTRAINT "tube_ref_once" UNIQUE("revision_id","ref"),
	CONSTRAINT "tube_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "tube_size_sane" CHECK (bore_mm > 0 and outer_mm > bore_mm and length_mm >= 0)
);
--> statement-breakpoint
ALTER TABLE "tube" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "customer" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"name" text NOT NULL,
	"email" text,
	"phone" text,
	"channel" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "customer_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "customer_name_given" CHECK (length(trim(name)) > 0),
	CONSTRAINT "customer_channel_known" CHECK (channel in ('phone', 'email', 'text'))
);
--> statement-breakpoint
ALTER TABLE "customer" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "finding" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"job_id" uuid,
	"text" text NOT NULL,
	"severity" text DEFAULT 'note' NOT NULL,
	"found_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "finding_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "finding_severity_known" CHECK (severity in ('note', 'watch', 'failure')),
	CONSTRAINT "finding_text_given" CHECK (length(trim(text)) > 0)
);
--> statement-breakpoint
ALTER TABLE "finding" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "job" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"system_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"state" text NOT NULL,
	"done_on" date,
	"note" text DEFAULT '' NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "job_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "job_kind_known" CHECK (kind in ('commissioning', 'drain-refill', 'flush-refill', 'strip-clean', 'leak-repair', 'top-up', 'closed-loop', 'settling-check')),
	CONSTRAINT "job_state_known" CHECK (state in ('active', 'done', 'cancelled')),
	CONSTRAINT "job_done_has_day" CHECK (state <> 'done' or done_on is not null)
);
--> statement-breakpoint
ALTER TABLE "job" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE TABLE "system" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workshop_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"customer_id" uuid NOT NULL,
	"name" text NOT NULL,
	"case_text" text DEFAULT '' NOT NULL,
	"built_by" text DEFAULT '' NOT NULL,
	"state" text DEFAULT 'planned' NOT NULL,
	"hours_per_day" double precision,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "system_tenant_key" UNIQUE("workshop_id","id"),
	CONSTRAINT "system_name_given" CHECK (length(trim(name)) > 0),
	CONSTRAINT "system_state_known" CHECK (state in ('planned', 'on-bench', 'in-service', 'retired')),
	CONSTRAINT "system_hours_sane" CHECK (hours_per_day > 0 and hours_per_day <= 24)
);
--> statement-breakpoint
ALTER TABLE "system" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "bench" ADD CONSTRAINT "bench_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "idempotency" ADD CONSTRAINT "idempotency_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "baseline" ADD CONSTRAINT "baseline_run_fk" FOREIGN KEY ("workshop_id","run_id") REFERENCES "public"."run"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "baseline" ADD CONSTRAINT "baseline_revision_fk" FOREIGN KEY ("workshop_id","revision_id") REFERENCES "public"."loop_revision"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_revision_fk" FOREIGN KEY ("workshop_id","revision_id") REFERENCES "public"."loop_revision"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_run_fk" FOREIGN KEY ("workshop_id","run_id") REFERENCES "public"."run"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_product_fk" FOREIGN KEY ("workshop_id","product_id") REFERENCES "public"."coolant_product"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_batch_fk" FOREIGN KEY ("workshop_id","batch_id") REFERENCES "public"."coolant_batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_run_fk" FOREIGN KEY ("workshop_id","run_id") REFERENCES "public"."run"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_revision_fk" FOREIGN KEY ("workshop_id","revision_id") REFERENCES "public"."loop_revision"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_event_fk" FOREIGN KEY ("workshop_id","event_id") REFERENCES "public"."run_event"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_loop_fk" FOREIGN KEY ("workshop_id","loop_id") REFERENCES "public"."loop"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_revision_fk" FOREIGN KEY ("workshop_id","revision_id") REFERENCES "public"."loop_revision"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_bench_fk" FOREIGN KEY ("workshop_id","bench_id") REFERENCES "public"."bench"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_event" ADD CONSTRAINT "run_event_run_fk" FOREIGN KEY ("workshop_id","run_id") REFERENCES "public"."run"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_event" ADD CONSTRAINT "run_event_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_record" ADD CONSTRAINT "run_record_run_fk" FOREIGN KEY ("workshop_id","run_id") REFERENCES "public"."run"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coolant_batch" ADD CONSTRAINT "coolant_batch_product_fk" FOREIGN KEY ("workshop_id","product_id") REFERENCES "public"."coolant_product"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coolant_product" ADD CONSTRAINT "coolant_product_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "due_item" ADD CONSTRAINT "due_item_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "due_item" ADD CONSTRAINT "due_item_loop_fk" FOREIGN KEY ("workshop_id","loop_id") REFERENCES "public"."loop"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "due_item" ADD CONSTRAINT "due_item_fill_fk" FOREIGN KEY ("workshop_id","fill_id") REFERENCES "public"."fill"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "due_item" ADD CONSTRAINT "due_item_person_fk" FOREIGN KEY ("workshop_id","closed_by") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "policy" ADD CONSTRAINT "policy_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "policy" ADD CONSTRAINT "policy_customer_fk" FOREIGN KEY ("workshop_id","customer_id") REFERENCES "public"."customer"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "policy" ADD CONSTRAINT "policy_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "postponement" ADD CONSTRAINT "postponement_due_fk" FOREIGN KEY ("workshop_id","due_item_id") REFERENCES "public"."due_item"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "postponement" ADD CONSTRAINT "postponement_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "component" ADD CONSTRAINT "component_revision_fk" FOREIGN KEY ("workshop_id","revision_id") REFERENCES "public"."loop_revision"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "loop" ADD CONSTRAINT "loop_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "loop" ADD CONSTRAINT "loop_coolant_fk" FOREIGN KEY ("workshop_id","coolant_product_id") REFERENCES "public"."coolant_product"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "loop_revision" ADD CONSTRAINT "loop_revision_loop_fk" FOREIGN KEY ("workshop_id","loop_id") REFERENCES "public"."loop"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "loop_revision" ADD CONSTRAINT "loop_revision_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tube" ADD CONSTRAINT "tube_revision_fk" FOREIGN KEY ("workshop_id","revision_id") REFERENCES "public"."loop_revision"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer" ADD CONSTRAINT "customer_workshop_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "finding" ADD CONSTRAINT "finding_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "finding" ADD CONSTRAINT "finding_job_fk" FOREIGN KEY ("workshop_id","job_id") REFERENCES "public"."job"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_system_fk" FOREIGN KEY ("workshop_id","system_id") REFERENCES "public"."system"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "system" ADD CONSTRAINT "system_customer_fk" FOREIGN KEY ("workshop_id","customer_id") REFERENCES "public"."customer"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "person_email_once" ON "person" USING btree ("email");--> statement-breakpoint
CREATE INDEX "fill_by_revision" ON "fill" USING btree ("workshop_id","revision_id");--> statement-breakpoint
CREATE INDEX "reading_by_revision" ON "reading" USING btree ("workshop_id","revision_id","quantity");--> statement-breakpoint
CREATE UNIQUE INDEX "run_one_active_per_loop" ON "run" USING btree ("workshop_id","loop_id") WHERE state = 'active';--> statement-breakpoint
CREATE INDEX "run_active" ON "run" USING btree ("workshop_id","state");--> statement-breakpoint
CREATE INDEX "due_open" ON "due_item" USING btree ("workshop_id","state","due_on");--> statement-breakpoint
CREATE INDEX "due_by_system" ON "due_item" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "component_by_catalogue" ON "component" USING btree ("workshop_id","catalogue_key");--> statement-breakpoint
CREATE INDEX "loop_by_system" ON "loop" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "finding_by_system" ON "finding" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "job_by_system" ON "job" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "system_by_customer" ON "system" USING btree ("workshop_id","customer_id");--> statement-breakpoint
CREATE POLICY "bench_own_workshop" ON "bench" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "idempotency_own_workshop" ON "idempotency" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "person_own_workshop" ON "person" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "workshop_own" ON "workshop" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "baseline_own_workshop" ON "baseline" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "fill_own_workshop" ON "fill" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "reading_own_workshop" ON "reading" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "run_own_workshop" ON "run" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "run_event_own_workshop" ON "run_event" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "run_record_own_workshop" ON "run_record" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "coolant_batch_own_workshop" ON "coolant_batch" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "coolant_product_own_workshop" ON "coolant_product" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "due_item_own_workshop" ON "due_item" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "policy_own_workshop" ON "policy" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "postponement_own_workshop" ON "postponement" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "component_own_workshop" ON "component" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "loop_own_workshop" ON "loop" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "loop_revision_own_workshop" ON "loop_revision" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "tube_own_workshop" ON "tube" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "customer_own_workshop" ON "customer" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "finding_own_workshop" ON "finding" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "job_own_workshop" ON "job" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);--> statement-breakpoint
CREATE POLICY "system_own_workshop" ON "system" AS PERMISSIVE FOR ALL TO "lavacrum_app" USING (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid) WITH CHECK (workshop_id = nullif(current_setting('lavacrum.workshop', true), '')::uuid);