-- Which lines of the list of machines are no longer true. Marks are only added, so that no writer waits for another.
CREATE FUNCTION mark_lines() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  CASE TG_TABLE_NAME
    WHEN 'due_item' THEN
      INSERT INTO stale_line SELECT DISTINCT workshop_id, system_id FROM changed;
    WHEN 'loop' THEN
      INSERT INTO stale_line SELECT DISTINCT workshop_id, system_id FROM changed;
    WHEN 'fill' THEN
      INSERT INTO stale_line SELECT DISTINCT l.workshop_id, l.system_id FROM changed c
        JOIN loop_revision r ON r.id = c.revision_id JOIN loop l ON l.id = r.loop_id;
    WHEN 'system' THEN
      INSERT INTO stale_line SELECT workshop_id, id FROM changed WHERE NOT for_course;
  END CASE;
  RETURN NULL;
END
$$;
--> statement-breakpoint
-- The same for rows that were there before: only what a line says of them counts.
CREATE FUNCTION mark_changed_lines() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  CASE TG_TABLE_NAME
    WHEN 'due_item' THEN
      INSERT INTO stale_line SELECT DISTINCT n.workshop_id, n.system_id FROM changed n JOIN was o USING (id)
        WHERE (n.state, n.kind, n.due_on, n.postponed, n.clocks) IS DISTINCT FROM (o.state, o.kind, o.due_on, o.postponed, o.clocks);
    WHEN 'loop' THEN
      INSERT INTO stale_line SELECT DISTINCT n.workshop_id, n.system_id FROM changed n JOIN was o USING (id)
        WHERE n.coolant_product_id IS DISTINCT FROM o.coolant_product_id;
    WHEN 'fill' THEN
      INSERT INTO stale_line SELECT DISTINCT l.workshop_id, l.system_id FROM changed n JOIN was o USING (id)
        JOIN loop_revision r ON r.id = n.revision_id JOIN loop l ON l.id = r.loop_id
        WHERE (n.product_id, n.filled_on) IS DISTINCT FROM (o.product_id, o.filled_on);
    WHEN 'system' THEN
      INSERT INTO stale_line SELECT n.workshop_id, n.id FROM changed n JOIN was o USING (id)
        WHERE NOT n.for_course AND (n.owner_id, n.name, n.tag, n.case_text, n.built_by, n.note, n.state)
          IS DISTINCT FROM (o.owner_id, o.name, o.tag, o.case_text, o.built_by, o.note, o.state);
    WHEN 'owner' THEN
      INSERT INTO stale_line SELECT s.workshop_id, s.id FROM changed n JOIN was o USING (id)
        JOIN system s ON s.workshop_id = n.workshop_id AND s.owner_id = n.id
        WHERE NOT s.for_course AND (n.name, n.email, n.phone, n.note) IS DISTINCT FROM (o.name, o.email, o.phone, o.note);
    WHEN 'coolant_product' THEN
      INSERT INTO stale_line SELECT DISTINCT l.workshop_id, l.system_id FROM changed n JOIN was o USING (id)
        JOIN loop l ON l.workshop_id = n.workshop_id
        WHERE n.name IS DISTINCT FROM o.name AND (l.coolant_product_id = n.id
          OR EXISTS (SELECT 1 FROM loop_revision r JOIN fill f ON f.revision_id = r.id WHERE r.loop_id = l.id AND f.product_id = n.id));
  END CASE;
  RETURN NULL;
END
$$;
--> statement-breakpoint
DO $$
DECLARE
  source text;
BEGIN
  FOREACH source IN ARRAY ARRAY['due_item', 'loop', 'fill', 'system'] LOOP
    EXECUTE format('CREATE TRIGGER %1$s_marks_line_new AFTER INSERT ON %1$I REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION mark_lines()', source);
  END LOOP;
  FOREACH source IN ARRAY ARRAY['due_item', 'loop', 'fill'] LOOP
    EXECUTE format('CREATE TRIGGER %1$s_marks_line_gone AFTER DELETE ON %1$I REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION mark_lines()', source);
  END LOOP;
  FOREACH source IN ARRAY ARRAY['due_item', 'loop', 'fill', 'system', 'owner', 'coolant_product'] LOOP
    EXECUTE format('CREATE TRIGGER %1$s_marks_line_changed AFTER UPDATE ON %1$I REFERENCING OLD TABLE AS was NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION mark_changed_lines()', source);
  END LOOP;
END
$$;
--> statement-breakpoint
-- what is there already is worked out when it is first looked at
INSERT INTO stale_line SELECT workshop_id, id FROM system WHERE NOT for_course;
--> statement-breakpoint
CREATE EXTENSION IF NOT EXISTS pg_trgm WITH SCHEMA public;
--> statement-breakpoint
CREATE EXTENSION IF NOT EXISTS btree_gin WITH SCHEMA public;
--> statement-breakpoint
CREATE EXTENSION IF NOT EXISTS unaccent WITH SCHEMA public;
--> statement-breakpoint
-- A request asks through found_refs alone.
REVOKE ALL ON search_text FROM lavacrum_app;
--> statement-breakpoint
-- One spelling for texts and for the words that look for them.
CREATE FUNCTION fold_text(raw text) RETURNS text LANGUAGE sql STABLE PARALLEL SAFE SET search_path = public, pg_temp AS $$
  SELECT lower(unaccent('unaccent'::regdictionary, coalesce(raw, '')))
$$;
--> statement-breakpoint
-- Arguments of the trigger: kind, column that names the row, instant, text; the last two as expressions over its row.
CREATE FUNCTION keep_search_text() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
BEGIN
  IF TG_OP = 'DELETE' THEN
    EXECUTE format('DELETE FROM search_text s USING changed c WHERE s.workshop_id = c.workshop_id AND s.kind = %L AND s.ref = c.%I', TG_ARGV[0], TG_ARGV[1]);
    RETURN NULL;
  END IF;
  IF TG_OP = 'UPDATE' THEN
    EXECUTE format('DELETE FROM search_text s USING changed WHERE s.workshop_id = changed.workshop_id AND s.kind = %L AND s.ref = changed.%I AND trim(%s) = ''''', TG_ARGV[0], TG_ARGV[1], TG_ARGV[3]);
  END IF;
  EXECUTE format('INSERT INTO search_text AS s (workshop_id, kind, ref, at, text)
    SELECT changed.workshop_id, %L, changed.%I, %s, fold_text(%s) FROM changed WHERE trim(%4$s) <> ''''
    ON CONFLICT ON CONSTRAINT search_text_once DO UPDATE SET at = excluded.at, text = excluded.text
    WHERE (s.at, s.text) IS DISTINCT FROM (excluded.at, excluded.text)', TG_ARGV[0], TG_ARGV[1], TG_ARGV[2], TG_ARGV[3]);
  RETURN NULL;
END
$$;
--> statement-breakpoint
-- From here on a table's texts are found; those that are there already as well.
CREATE FUNCTION make_searchable(source text, kind text, ref text, at text, words text) RETURNS void LANGUAGE plpgsql SET search_path = public, pg_temp AS $$
DECLARE
  given text := format('EXECUTE FUNCTION keep_search_text(%L, %L, %L, %L)', kind, ref, at, words);
BEGIN
  EXECUTE format('CREATE TRIGGER %s_found_new AFTER INSERT ON %I REFERENCING NEW TABLE AS changed FOR EACH STATEMENT %s', kind, source, given);
  EXECUTE format('CREATE TRIGGER %s_found_changed AFTER UPDATE ON %I REFERENCING NEW TABLE AS changed FOR EACH STATEMENT %s', kind, source, given);
  EXECUTE format('CREATE TRIGGER %s_found_gone AFTER DELETE ON %I REFERENCING OLD TABLE AS changed FOR EACH STATEMENT %s', kind, source, given);
  EXECUTE format('INSERT INTO search_text (workshop_id, kind, ref, at, text)
    SELECT changed.workshop_id, %L, changed.%I, %s, fold_text(%s) FROM %I AS changed WHERE trim(%4$s) <> ''''', kind, ref, at, words, source);
END
$$;
--> statement-breakpoint
REVOKE EXECUTE ON FUNCTION make_searchable(text, text, text, text, text) FROM PUBLIC;
--> statement-breakpoint
SELECT
  make_searchable('machine_line', 'machine', 'id', 'created_at', 'words'),
  make_searchable('owner', 'phone', 'id', 'created_at', $$regexp_replace(coalesce(phone, ''), '\D', '', 'g')$$),
  make_searchable('owner', 'owner', 'id', 'created_at', $$concat_ws(' ', name, email, phone)$$),
  make_searchable('job', 'job', 'id', 'created_at', 'note'),
  make_searchable('service_job', 'intake', 'job_id', 'created_at', $$concat_ws(' ', intake->>'symptom', intake->>'condition')$$),
  make_searchable('finding', 'finding', 'id', 'found_at', 'changed.text'),
  make_searchable('run_event', 'entry', 'id', 'happened_at', $$concat_ws(' ', body->>'text', body->>'reason', body->>'fix', body->'findings'->>'text')$$),
  make_searchable('coolant_lot', 'lot', 'id', 'created_at', 'lot'),
  make_searchable('coolant_product', 'product', 'id', 'created_at', 'name'),
  make_searchable('fitted_part', 'fitted', 'id', 'created_at', $$concat_ws(' ', make, lot)$$),
  make_searchable('component', 'part', 'id', 'created_at', 'label'),
  make_searchable('photo', 'photo', 'id', 'created_at', 'caption'),
  make_searchable('kept_part', 'kept', 'id', 'created_at', $$concat_ws(' ', name, place, lent_to)$$),
  make_searchable('store_item', 'item', 'id', 'created_at', $$concat_ws(' ', name, lot)$$);
--> statement-breakpoint
-- made once over what is there: row by row a million texts would take hours
CREATE INDEX search_text_trigrams ON search_text USING gin (workshop_id, kind, text public.gin_trgm_ops) WITH (fastupdate = off);
--> statement-breakpoint
-- The newest rows of one kind in which every word occurs, capitals and accents aside, in the workshop that the transaction is in.
CREATE FUNCTION found_refs(what text, words text[], most integer) RETURNS SETOF uuid LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
DECLARE
  conditions text;
BEGIN
  SELECT string_agg(format('text LIKE %L', '%' || regexp_replace(fold_text(word), '([\\%_])', '\\\1', 'g') || '%'), ' AND ')
    INTO conditions FROM unnest(words) AS word WHERE word <> '';
  IF conditions IS NULL THEN
    RETURN;
  END IF;
  RETURN QUERY EXECUTE format('SELECT ref FROM search_text WHERE workshop_id = nullif(current_setting(''lavacrum.workshop'', true), '''')::uuid
    AND kind = $1 AND %s ORDER BY at DESC LIMIT $2', conditions) USING what, most;
END
$$;
--> statement-breakpoint
REVOKE EXECUTE ON FUNCTION found_refs(text, text[], integer) FROM PUBLIC;
--> statement-breakpoint
GRANT EXECUTE ON FUNCTION found_refs(text, text[], integer) TO lavacrum_app;
