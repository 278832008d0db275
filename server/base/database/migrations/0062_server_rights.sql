-- What belongs to the servers is theirs alone: no request reads it, whatever it asks.
GRANT USAGE ON SCHEMA server TO lavacrum_server;
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA server TO lavacrum_server;
--> statement-breakpoint
GRANT USAGE ON ALL SEQUENCES IN SCHEMA server TO lavacrum_server;
--> statement-breakpoint
-- counted for minutes: nothing is lost that anybody would miss after a crash
ALTER TABLE server.attempt SET UNLOGGED;
