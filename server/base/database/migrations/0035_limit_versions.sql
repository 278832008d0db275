DROP INDEX "limit_change_by_product";--> statement-breakpoint
ALTER TABLE "limit_change" ADD COLUMN "product_version" integer;--> statement-breakpoint
-- every change raised its product's version by one at least: counted from one, none meets a later one
UPDATE "limit_change" AS c SET "product_version" = n.nth
FROM (SELECT id, row_number() OVER (PARTITION BY product_id ORDER BY created_at, id) AS nth FROM "limit_change") AS n
WHERE n.id = c.id;--> statement-breakpoint
ALTER TABLE "limit_change" ALTER COLUMN "product_version" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "limit_change" ADD CONSTRAINT "limit_change_version_once" UNIQUE("workshop_id","product_id","product_version");
