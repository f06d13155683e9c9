ALTER TABLE "vehicles" ADD COLUMN "meter_offset_km" numeric(9, 1) DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "meter_replaced_on" date;--> statement-breakpoint
ALTER TABLE "odometer_readings" ADD COLUMN "suggested_km" numeric(9, 1);--> statement-breakpoint
ALTER TABLE "odometer_readings" ADD COLUMN "settled" text;--> statement-breakpoint
ALTER TABLE "odometer_readings" ADD COLUMN "settled_reason" text;--> statement-breakpoint
ALTER TABLE "odometer_readings" ADD COLUMN "settled_by" uuid;--> statement-breakpoint
ALTER TABLE "odometer_readings" ADD COLUMN "settled_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "odometer_readings" ADD COLUMN "corrects_km" numeric(9, 1);--> statement-breakpoint
CREATE INDEX "odometer_readings_suspect" ON "odometer_readings" USING btree ("fleet_id","vehicle_id") WHERE "odometer_readings"."state" = 'suspect';