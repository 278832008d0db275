-- Thousands of fills may be written in one statement. Each finds its machine by two keys; joined to tables that have just grown, and were
-- never counted, they were compared each with all. A plan that was made while the tables were small must not be kept for that either.
CREATE OR REPLACE FUNCTION mark_lines() RETURNS trigger LANGUAGE plpgsql SET enable_seqscan = off AS $$
BEGIN
  CASE TG_TABLE_NAME
    WHEN 'due_item' THEN
      INSERT INTO stale_line SELECT DISTINCT workshop_id, system_id FROM changed;
    WHEN 'loop' THEN
      INSERT INTO stale_line SELECT DISTINCT workshop_id, system_id FROM changed;
    WHEN 'fill' THEN
      INSERT INTO stale_line SELECT DISTINCT c.workshop_id,
        (SELECT l.system_id FROM loop l WHERE l.id = (SELECT r.loop_id FROM loop_revision r WHERE r.id = c.revision_id)) FROM changed c;
    WHEN 'system' THEN
      INSERT INTO stale_line SELECT workshop_id, id FROM changed WHERE NOT for_course;
  END CASE;
  RETURN NULL;
END
$$;
--> statement-breakpoint
-- Words that are written together are put in their places together. What still waits is read from end to end by every search, so it stays short.
ALTER INDEX search_text_trigrams SET (fastupdate = on, gin_pending_list_limit = 512);
