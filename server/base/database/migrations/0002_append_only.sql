-- The run log, the signed records and the loop revisions are written once.
CREATE FUNCTION refuse_rewrite() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is written once: add to it instead', TG_TABLE_NAME USING ERRCODE = 'LC001';
END
$$;
--> statement-breakpoint
CREATE TRIGGER run_event_written_once BEFORE UPDATE OR DELETE ON run_event FOR EACH ROW EXECUTE FUNCTION refuse_rewrite();
--> statement-breakpoint
CREATE TRIGGER run_record_written_once BEFORE UPDATE OR DELETE ON run_record FOR EACH ROW EXECUTE FUNCTION refuse_rewrite();
--> statement-breakpoint
CREATE TRIGGER loop_revision_written_once BEFORE UPDATE OR DELETE ON loop_revision FOR EACH ROW EXECUTE FUNCTION refuse_rewrite();
--> statement-breakpoint
REVOKE UPDATE, DELETE ON run_event, run_record, loop_revision FROM lavacrum_app;
--> statement-breakpoint
-- Sessions are the session store's business, not a request's.
REVOKE ALL ON session FROM lavacrum_app;
