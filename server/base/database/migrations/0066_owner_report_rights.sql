-- A visitor reads the reports of the machine of his link, and the pictures that stand in them.
GRANT SELECT (system_id, number, facts, photo_ids, created_at) ON owner_report TO lavacrum_door;
--> statement-breakpoint
GRANT SELECT (id, image, media_type) ON photo TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "photo_door" ON "photo" FOR SELECT TO lavacrum_door USING (id IN (SELECT unnest(photo_ids) FROM owner_report));
