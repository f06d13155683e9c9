ALTER TABLE "depots" ADD COLUMN "working_days" integer[] DEFAULT '{1,2,3,4,5}' NOT NULL;--> statement-breakpoint
ALTER TABLE "depots" ADD COLUMN "opens_min" integer DEFAULT 480 NOT NULL;--> statement-breakpoint
ALTER TABLE "depots" ADD COLUMN "closes_min" integer DEFAULT 960 NOT NULL;--> statement-breakpoint
ALTER TABLE "bookings" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "depots" ADD CONSTRAINT "depots_hours_possible" CHECK ("depots"."opens_min" >= 0 and "depots"."opens_min" < "depots"."closes_min" and "depots"."closes_min" <= 1440);--> statement-breakpoint
ALTER TABLE "depots" ADD CONSTRAINT "depots_working_days" CHECK ("depots"."working_days" <@ array[1,2,3,4,5,6,7]);