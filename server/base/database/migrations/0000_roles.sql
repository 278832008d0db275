-- The role every request works as. Roles belong to the whole cluster, so another database may have made it already.
DO $$
BEGIN
  CREATE ROLE lavacrum_app NOLOGIN;
EXCEPTION
  WHEN duplicate_object THEN NULL;
  WHEN unique_violation THEN NULL;
END
$$;
--> statement-breakpoint
DO $$
BEGIN
  EXECUTE format('GRANT lavacrum_app TO %I', current_user);
END
$$;
--> statement-breakpoint
GRANT USAGE ON SCHEMA public TO lavacrum_app;
--> statement-breakpoint
ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT SELECT, INSERT, UPDATE, DELETE ON TABLES TO lavacrum_app;
