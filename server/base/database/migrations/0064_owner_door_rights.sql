-- A visitor at the owner's door works as lavacrum_door. It is told the hash of a secret, and sees the one link that has it; everything else
-- hangs on that link, row by row, and of each row only the columns that are named here. No note, no reason, no other machine.
GRANT USAGE ON SCHEMA public TO lavacrum_door;
--> statement-breakpoint
REVOKE ALL ON ALL TABLES IN SCHEMA public FROM lavacrum_door;
--> statement-breakpoint
GRANT SELECT, UPDATE (seen_at) ON owner_link TO lavacrum_door;
--> statement-breakpoint
GRANT SELECT (id, name, time_zone, contact, reading, door) ON workshop TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "workshop_door" ON "workshop" FOR SELECT TO lavacrum_door USING (id = (SELECT workshop_id FROM owner_link));
--> statement-breakpoint
GRANT SELECT (id, owner_id, name) ON system TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "system_door" ON "system" FOR SELECT TO lavacrum_door USING (id = (SELECT system_id FROM owner_link));
--> statement-breakpoint
GRANT SELECT (id, name, reading) ON owner TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "owner_door" ON "owner" FOR SELECT TO lavacrum_door USING (id = (SELECT owner_id FROM system));
--> statement-breakpoint
GRANT SELECT (id, system_id, kind, state, done_on, created_at) ON job TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "job_door" ON "job" FOR SELECT TO lavacrum_door USING (system_id = (SELECT system_id FROM owner_link) AND ((SELECT job_id FROM owner_link) IS NULL OR id = (SELECT job_id FROM owner_link)));
--> statement-breakpoint
GRANT SELECT (job_id, estimate, estimate_number, asked, parts_on, brought_on, not_come_on, fetched_on) ON service_job TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "service_job_door" ON "service_job" FOR SELECT TO lavacrum_door USING (job_id IN (SELECT id FROM job));
--> statement-breakpoint
GRANT SELECT (job_id, estimate_number, how, name, created_at), INSERT ON consent TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "consent_door_reads" ON "consent" FOR SELECT TO lavacrum_door USING (job_id IN (SELECT id FROM job));
--> statement-breakpoint
CREATE POLICY "consent_door_agrees" ON "consent" FOR INSERT TO lavacrum_door WITH CHECK (how = 'page' AND person_id IS NULL AND workshop_id = (SELECT workshop_id FROM owner_link) AND job_id IN (SELECT id FROM job));
--> statement-breakpoint
GRANT SELECT (job_id, starts_at, ends_at, confirmed) ON slot TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "slot_door" ON "slot" FOR SELECT TO lavacrum_door USING (confirmed AND job_id IN (SELECT id FROM job));
--> statement-breakpoint
GRANT SELECT (job_id, starts_at, ends_at) ON slot_offer TO lavacrum_door;
--> statement-breakpoint
GRANT SELECT (job_id, state, started_at, stage, stage_ends_at, waits_for, waits_until) ON run TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "run_door" ON "run" FOR SELECT TO lavacrum_door USING (job_id IN (SELECT id FROM job));
--> statement-breakpoint
GRANT SELECT (system_id, kind, due_on, window_from, state, postponed) ON due_item TO lavacrum_door;
--> statement-breakpoint
CREATE POLICY "due_item_door" ON "due_item" FOR SELECT TO lavacrum_door USING (system_id = (SELECT system_id FROM owner_link));
--> statement-breakpoint
GRANT SELECT (id, link_id, job_id, said, created_at, answered_at, taken, answer), INSERT ON door_entry TO lavacrum_door;
--> statement-breakpoint
GRANT INSERT ON door_file TO lavacrum_door;
--> statement-breakpoint
-- what was told before this was kept counts from its booking
UPDATE service_job SET estimate_at = created_at;
