CREATE INDEX "coolant_move_by_lot" ON "coolant_move" USING btree ("workshop_id","lot_id");--> statement-breakpoint
CREATE INDEX "due_open_by_loop" ON "due_item" USING btree ("workshop_id","loop_id") WHERE state = 'open';--> statement-breakpoint
CREATE INDEX "postponement_by_due" ON "postponement" USING btree ("workshop_id","due_item_id");--> statement-breakpoint
CREATE INDEX "consent_by_job" ON "consent" USING btree ("workshop_id","job_id");--> statement-breakpoint
CREATE INDEX "service_job_by_due" ON "service_job" USING btree ("workshop_id","due_item_id");--> statement-breakpoint
CREATE INDEX "loop_by_coolant" ON "loop" USING btree ("workshop_id","coolant_product_id");--> statement-breakpoint
CREATE INDEX "fitted_part_by_loop" ON "fitted_part" USING btree ("workshop_id","loop_id");--> statement-breakpoint
CREATE INDEX "job_open" ON "job" USING btree ("workshop_id","state") WHERE state in ('booked', 'waiting', 'active');--> statement-breakpoint
CREATE INDEX "message_by_system" ON "message" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "message_by_owner" ON "message" USING btree ("workshop_id","owner_id");--> statement-breakpoint
CREATE INDEX "baseline_by_revision" ON "baseline" USING btree ("workshop_id","revision_id");--> statement-breakpoint
CREATE INDEX "baseline_by_run" ON "baseline" USING btree ("workshop_id","run_id");--> statement-breakpoint
CREATE INDEX "fill_by_job" ON "fill" USING btree ("workshop_id","job_id");--> statement-breakpoint
CREATE INDEX "fill_by_product" ON "fill" USING btree ("workshop_id","product_id");--> statement-breakpoint
CREATE INDEX "fill_by_lot" ON "fill" USING btree ("workshop_id","lot_id");--> statement-breakpoint
CREATE INDEX "reading_by_run" ON "reading" USING btree ("workshop_id","run_id");--> statement-breakpoint
CREATE INDEX "run_by_loop" ON "run" USING btree ("workshop_id","loop_id");--> statement-breakpoint
CREATE INDEX "run_by_job" ON "run" USING btree ("workshop_id","job_id");--> statement-breakpoint
CREATE INDEX "kept_part_by_system" ON "kept_part" USING btree ("workshop_id","system_id");--> statement-breakpoint
CREATE INDEX "store_move_by_job" ON "store_move" USING btree ("workshop_id","job_id");--> statement-breakpoint
CREATE INDEX "waste_entry_by_job" ON "waste_entry" USING btree ("workshop_id","job_id");