ALTER TABLE "fill" ADD COLUMN "rinses" integer;--> statement-breakpoint
ALTER TABLE "fill" ADD COLUMN "rinse_ml" double precision;--> statement-breakpoint
ALTER TABLE "fill" ADD CONSTRAINT "fill_rinses_sane" CHECK ((rinses is null) = (rinse_ml is null) and rinses > 0 and rinse_ml > 0);