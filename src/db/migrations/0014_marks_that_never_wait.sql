ALTER TABLE "unsettled_groups" DROP CONSTRAINT "unsettled_groups_fleet_id_duty_group_pk";--> statement-breakpoint
ALTER TABLE "unsettled_groups" ADD COLUMN "id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
CREATE INDEX "unsettled_groups_fleet_id_index" ON "unsettled_groups" USING btree ("fleet_id");