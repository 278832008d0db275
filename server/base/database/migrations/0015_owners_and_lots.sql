-- One word each: who owns a machine is its owner, a batch of coolant is a lot. Stored entries keep their old key and are read with it.
ALTER TABLE "customer" RENAME TO "owner";--> statement-breakpoint
ALTER TABLE "coolant_batch" RENAME TO "coolant_lot";--> statement-breakpoint
ALTER TABLE "coolant_lot" RENAME CONSTRAINT "coolant_batch_product_fk" TO "coolant_lot_product_fk";--> statement-breakpoint
ALTER TABLE "coolant_lot" RENAME CONSTRAINT "coolant_batch_lot_once" TO "coolant_lot_once";--> statement-breakpoint
ALTER TABLE "coolant_lot" RENAME CONSTRAINT "coolant_batch_tenant_key" TO "coolant_lot_tenant_key";--> statement-breakpoint
ALTER TABLE "coolant_lot" RENAME CONSTRAINT "coolant_batch_stock_sane" TO "coolant_lot_stock_sane";--> statement-breakpoint
ALTER POLICY "coolant_batch_own_workshop" ON "coolant_lot" RENAME TO "coolant_lot_own_workshop";--> statement-breakpoint
ALTER TABLE "coolant_move" RENAME COLUMN "batch_id" TO "lot_id";--> statement-breakpoint
ALTER TABLE "coolant_move" RENAME CONSTRAINT "coolant_move_batch_fk" TO "coolant_move_lot_fk";--> statement-breakpoint
ALTER TABLE "policy" RENAME COLUMN "customer_id" TO "owner_id";--> statement-breakpoint
ALTER TABLE "policy" RENAME CONSTRAINT "policy_customer_fk" TO "policy_owner_fk";--> statement-breakpoint
ALTER TABLE "owner" RENAME CONSTRAINT "customer_workshop_fk" TO "owner_workshop_fk";--> statement-breakpoint
ALTER TABLE "owner" RENAME CONSTRAINT "customer_tenant_key" TO "owner_tenant_key";--> statement-breakpoint
ALTER TABLE "owner" RENAME CONSTRAINT "customer_name_given" TO "owner_name_given";--> statement-breakpoint
ALTER TABLE "owner" RENAME CONSTRAINT "customer_channel_known" TO "owner_channel_known";--> statement-breakpoint
ALTER POLICY "customer_own_workshop" ON "owner" RENAME TO "owner_own_workshop";--> statement-breakpoint
ALTER TABLE "system" RENAME COLUMN "customer_id" TO "owner_id";--> statement-breakpoint
ALTER TABLE "system" RENAME CONSTRAINT "system_customer_fk" TO "system_owner_fk";--> statement-breakpoint
ALTER INDEX "system_by_customer" RENAME TO "system_by_owner";--> statement-breakpoint
ALTER TABLE "message" RENAME COLUMN "customer_id" TO "owner_id";--> statement-breakpoint
ALTER TABLE "message" RENAME CONSTRAINT "message_customer_fk" TO "message_owner_fk";--> statement-breakpoint
ALTER TABLE "fill" RENAME COLUMN "batch_id" TO "lot_id";--> statement-breakpoint
ALTER TABLE "fill" RENAME CONSTRAINT "fill_batch_fk" TO "fill_lot_fk";--> statement-breakpoint
UPDATE "due_item" SET reason = replace(reason::text, '"scope": "customer"', '"scope": "owner"')::jsonb WHERE reason::text LIKE '%"scope": "customer"%';--> statement-breakpoint
UPDATE "due_item" SET outcome = replace(outcome::text, '"scope": "customer"', '"scope": "owner"')::jsonb WHERE outcome::text LIKE '%"scope": "customer"%';--> statement-breakpoint
UPDATE "due_item" SET clocks = replace(clocks::text, '"scope": "customer"', '"scope": "owner"')::jsonb WHERE clocks::text LIKE '%"scope": "customer"%';
