ALTER TABLE "person" ADD COLUMN "first_password" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "is_demo" boolean DEFAULT false NOT NULL;--> statement-breakpoint
-- the server asks for it at the door
GRANT SELECT (is_demo) ON person TO lavacrum_server;--> statement-breakpoint
-- accounts that the demo made before this column was there
UPDATE person SET is_demo = true WHERE email LIKE '%@fernhollow.example';
