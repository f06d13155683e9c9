CREATE TABLE "depot_ways" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"depot_id" uuid NOT NULL,
	"other_id" uuid NOT NULL,
	"minutes" integer NOT NULL,
	CONSTRAINT "depot_ways_depotId_otherId_unique" UNIQUE("depot_id","other_id"),
	CONSTRAINT "depot_ways_in_order" CHECK ("depot_ways"."depot_id" < "depot_ways"."other_id"),
	CONSTRAINT "depot_ways_possible" CHECK ("depot_ways"."minutes" between 0 and 1440)
);
--> statement-breakpoint
ALTER TABLE "depots" ADD COLUMN "delivery_from_min" integer;--> statement-breakpoint
ALTER TABLE "fleets" ADD COLUMN "break_minutes" integer DEFAULT 30 NOT NULL;--> statement-breakpoint
ALTER TABLE "depot_ways" ADD CONSTRAINT "depot_ways_fleet_id_depot_id_depots_fleet_id_id_fk" FOREIGN KEY ("fleet_id","depot_id") REFERENCES "public"."depots"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "depot_ways" ADD CONSTRAINT "depot_ways_fleet_id_other_id_depots_fleet_id_id_fk" FOREIGN KEY ("fleet_id","other_id") REFERENCES "public"."depots"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "depots" ADD CONSTRAINT "depots_delivery_time" CHECK ("depots"."delivery_from_min" between 0 and 1440);