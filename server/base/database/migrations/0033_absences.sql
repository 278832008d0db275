ALTER TABLE "absence" ADD COLUMN "part" text DEFAULT 'whole' NOT NULL;--> statement-breakpoint
ALTER TABLE "absence" ADD COLUMN "why" text DEFAULT 'other' NOT NULL;--> statement-breakpoint
ALTER TABLE "absence" ADD CONSTRAINT "absence_part_known" CHECK (part in ('whole', 'morning', 'afternoon'));--> statement-breakpoint
ALTER TABLE "absence" ADD CONSTRAINT "absence_why_known" CHECK (why in ('holiday', 'ill', 'course', 'elsewhere', 'other'));