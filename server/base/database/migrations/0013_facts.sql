-- Reasons, outcomes and findings were sentences; now they are codes with values. What a sentence of an older program means is
-- taken from it where something is decided by it; everything else stays as it was said.
CREATE FUNCTION pg_temp.said(words text) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT jsonb_build_object('why', 'said', 'text', words)
$$;--> statement-breakpoint
CREATE FUNCTION pg_temp.use_limits(words text) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT coalesce(jsonb_agg(code ORDER BY place), '[]'::jsonb)
  FROM (VALUES
    ('do not move the machine', 'do-not-move'), ('look at the level every day', 'level-daily'),
    ('no long loads', 'no-load'), ('do not leave it running alone', 'not-unattended')
  ) AS known (said, code)
  JOIN unnest(string_to_array(words, ', ')) WITH ORDINALITY AS each (said, place) USING (said)
$$;--> statement-breakpoint
CREATE FUNCTION pg_temp.reason(words text) RETURNS jsonb LANGUAGE plpgsql IMMUTABLE AS $$
DECLARE found text[];
BEGIN
  found := regexp_match(words, '^put off by the owner until (\d{4}-\d{2}-\d{2}) \((.*?)\); first reason: (.*)$');
  IF found IS NOT NULL THEN
    RETURN jsonb_build_object('why', 'put-off', 'until', found[1], 'said', found[2], 'first', pg_temp.reason(found[3]));
  END IF;
  found := regexp_match(words, '^temporary: (.*), until (.*?); (.*)$');
  IF found IS NOT NULL THEN
    RETURN jsonb_build_object('why', 'temporary', 'what', found[1], 'awaits', found[2], 'limits', pg_temp.use_limits(found[3]));
  END IF;
  RETURN pg_temp.said(words);
END $$;--> statement-breakpoint
CREATE FUNCTION pg_temp.outcome(words text) RETURNS jsonb LANGUAGE plpgsql IMMUTABLE AS $$
DECLARE found text[];
BEGIN
  IF words = '' THEN RETURN NULL; END IF;
  IF words = 'the loop was filled anew' THEN RETURN '{"why": "filled-anew"}'; END IF;
  IF words = 'the loop was topped up anew' THEN RETURN '{"why": "topped-up"}'; END IF;
  IF words = 'in a service' THEN RETURN '{"why": "in-service"}'; END IF;
  IF words IN ('loop retired', 'retirement') THEN RETURN '{"why": "loop-ended", "kind": "retirement"}'; END IF;
  IF words ~ '^(converted|conversion)' THEN RETURN '{"why": "loop-ended", "kind": "conversion"}'; END IF;
  found := regexp_match(words, '^done(?: \((.*)\))?$');
  IF found IS NOT NULL THEN RETURN jsonb_build_object('why', 'done', 'note', coalesce(found[1], '')); END IF;
  found := regexp_match(words, '^settled(?:, level changed by ([−-]?[0-9.]+) mm)?(?: \((.*)\))?$');
  IF found IS NOT NULL THEN
    RETURN jsonb_build_object('why', 'settled', 'levelChangeMm', replace(found[1], '−', '-')::numeric, 'note', coalesce(found[2], ''));
  END IF;
  RETURN pg_temp.said(words);
END $$;--> statement-breakpoint
CREATE FUNCTION pg_temp.clocks(stored jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT coalesce(
    jsonb_agg(
      CASE WHEN jsonb_typeof(each.clock -> 'reason') = 'string'
        THEN jsonb_set(each.clock, '{reason}', pg_temp.reason(each.clock ->> 'reason')) ELSE each.clock END
      ORDER BY each.place),
    '[]'::jsonb)
  FROM jsonb_array_elements(stored) WITH ORDINALITY AS each (clock, place)
$$;--> statement-breakpoint
ALTER TABLE "due_item" DROP CONSTRAINT "due_reason_given";--> statement-breakpoint
ALTER TABLE "due_item" ALTER COLUMN "reason" SET DATA TYPE jsonb USING pg_temp.reason(reason);--> statement-breakpoint
ALTER TABLE "due_item" ALTER COLUMN "outcome" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "due_item" ALTER COLUMN "outcome" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "due_item" ALTER COLUMN "outcome" SET DATA TYPE jsonb USING pg_temp.outcome(outcome);--> statement-breakpoint
UPDATE "due_item" SET clocks = pg_temp.clocks(clocks);--> statement-breakpoint
ALTER TABLE "due_item" ADD CONSTRAINT "due_reason_given" CHECK (reason ? 'why');--> statement-breakpoint
ALTER TABLE "fill" ALTER COLUMN "interval_reason" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "fill" ALTER COLUMN "interval_reason" SET DATA TYPE jsonb
  USING CASE WHEN interval_reason = '' THEN '[]'::jsonb ELSE jsonb_build_array(pg_temp.said(interval_reason)) END;--> statement-breakpoint
ALTER TABLE "fill" ALTER COLUMN "interval_reason" SET DEFAULT '[]'::jsonb;--> statement-breakpoint
ALTER TABLE "finding" ADD COLUMN "fact" jsonb;--> statement-breakpoint
UPDATE "finding" SET fact = pg_temp.said(text);--> statement-breakpoint
ALTER TABLE "finding" ALTER COLUMN "fact" SET NOT NULL;--> statement-breakpoint
DROP FUNCTION pg_temp.clocks(jsonb);--> statement-breakpoint
DROP FUNCTION pg_temp.outcome(text);--> statement-breakpoint
DROP FUNCTION pg_temp.reason(text);--> statement-breakpoint
DROP FUNCTION pg_temp.use_limits(text);--> statement-breakpoint
DROP FUNCTION pg_temp.said(text);
