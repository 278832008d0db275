ALTER TABLE "system" ADD COLUMN "is_sample" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "passed_steps" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
CREATE OR REPLACE FUNCTION refuse_rewrite_of_drawn() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- what was only stated, or laid out for a sample that nobody worked on, may go again
  IF TG_OP = 'DELETE'
    AND (OLD.kind = 'stated' OR EXISTS (SELECT 1 FROM loop l JOIN system s ON s.id = l.system_id WHERE l.id = OLD.loop_id AND s.is_sample))
    AND NOT EXISTS (SELECT 1 FROM run WHERE run.revision_id = OLD.id)
  THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION '% is written once: add to it instead', TG_TABLE_NAME USING ERRCODE = 'LC001';
END
$$;
