-- Whose the machine was when its report was made: reports so far are their owners' of today.
ALTER TABLE "owner_report" ADD COLUMN "owner_id" uuid;--> statement-breakpoint
UPDATE "owner_report" SET "owner_id" = "system"."owner_id" FROM "system" WHERE "system"."id" = "owner_report"."system_id";--> statement-breakpoint
ALTER TABLE "owner_report" ALTER COLUMN "owner_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "owner_report" ADD CONSTRAINT "owner_report_owner_fk" FOREIGN KEY ("workshop_id","owner_id") REFERENCES "public"."owner"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER POLICY "owner_report_door" ON "owner_report" TO lavacrum_door USING (system_id = (select system_id from owner_link) and owner_id = (select owner_id from system));