ALTER TABLE "owner" ADD COLUMN "for_course" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "system" ADD COLUMN "for_course" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "practice" ADD COLUMN "lesson" text;--> statement-breakpoint
ALTER TABLE "practice" ADD COLUMN "person_id" uuid;--> statement-breakpoint
ALTER TABLE "practice" ADD COLUMN "ended_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "practice" ADD CONSTRAINT "practice_person_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "practice_by_person" ON "practice" USING btree ("workshop_id","person_id");--> statement-breakpoint
ALTER TABLE "practice" ADD CONSTRAINT "practice_lesson_of_somebody" CHECK (lesson is null or person_id is not null);