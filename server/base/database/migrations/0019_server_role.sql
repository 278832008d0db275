CREATE POLICY "calendar_feed_server_finds" ON "calendar_feed" AS PERMISSIVE FOR SELECT TO "lavacrum_server" USING (true);--> statement-breakpoint
CREATE POLICY "person_server_finds" ON "person" AS PERMISSIVE FOR SELECT TO "lavacrum_server" USING (true);--> statement-breakpoint
CREATE POLICY "workshop_server_finds" ON "workshop" AS PERMISSIVE FOR SELECT TO "lavacrum_server" USING (true);--> statement-breakpoint
-- The server signs in as this role and works as lavacrum_app within a workshop. Outside one it sees what these lines grant, and no more.
GRANT USAGE ON SCHEMA public TO lavacrum_server;
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON session TO lavacrum_server;
--> statement-breakpoint
GRANT SELECT (id, name, time_zone) ON workshop TO lavacrum_server;
--> statement-breakpoint
GRANT SELECT (id, workshop_id, email, password_hash, active) ON person TO lavacrum_server;
--> statement-breakpoint
GRANT SELECT (workshop_id, person_id, secret_hash) ON calendar_feed TO lavacrum_server;
--> statement-breakpoint
-- What was answered to requests may hold secrets, and fingerprints of passwords that are quick to try; nobody asks for it any more.
DELETE FROM idempotency;
