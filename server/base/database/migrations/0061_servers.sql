CREATE SCHEMA "server";
--> statement-breakpoint
CREATE TABLE "server"."attempt" (
	"key" text PRIMARY KEY NOT NULL,
	"hits" integer NOT NULL,
	"until" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "server"."duty" (
	"name" text PRIMARY KEY NOT NULL,
	"by" text NOT NULL,
	"done_at" timestamp with time zone,
	"failed_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "server"."member" (
	"name" text PRIMARY KEY NOT NULL,
	"version" text DEFAULT '' NOT NULL,
	"broker" text,
	"voice_at" timestamp with time zone,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "server"."secret" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"value" text NOT NULL,
	"signs_from" timestamp with time zone NOT NULL
);
