DROP INDEX "due_open_by_loop";--> statement-breakpoint
CREATE INDEX "due_by_loop" ON "due_item" USING btree ("workshop_id","loop_id");--> statement-breakpoint
CREATE INDEX "due_by_fill" ON "due_item" USING btree ("workshop_id","fill_id") WHERE fill_id is not null;--> statement-breakpoint
-- Names stand whole, so that it needs no search path of its own: it is worked into the question instead of being called for every text.
CREATE OR REPLACE FUNCTION fold_text(raw text) RETURNS text LANGUAGE sql STABLE PARALLEL SAFE AS $$
  SELECT lower(public.unaccent('public.unaccent'::regdictionary, coalesce(raw, '')))
$$;
