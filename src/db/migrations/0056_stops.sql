ALTER TABLE "work_order_waits" ADD COLUMN "note" text;--> statement-breakpoint
ALTER TABLE "work_order_waits" ADD COLUMN "next_person_id" uuid;--> statement-breakpoint
ALTER TABLE "work_order_waits" ADD CONSTRAINT "work_order_waits_fleet_id_next_person_id_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","next_person_id") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "work_order_waits_work_order_id_index" ON "work_order_waits" USING btree ("work_order_id") WHERE "work_order_waits"."ended_at" is null;