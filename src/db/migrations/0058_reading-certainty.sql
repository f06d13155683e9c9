ALTER TABLE "odometer_readings" ADD COLUMN "certainty" text DEFAULT 'exact' NOT NULL;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "removed_km_certainty" text;--> statement-breakpoint
ALTER TABLE "odometer_readings" ADD CONSTRAINT "odometer_readings_certainty_known" CHECK ("odometer_readings"."certainty" in ('exact','estimated'));