CREATE TABLE "duty_costs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"duty_group" text NOT NULL,
	"failure_cost" integer NOT NULL,
	CONSTRAINT "duty_costs_fleetId_dutyGroup_unique" UNIQUE("fleet_id","duty_group"),
	CONSTRAINT "duty_costs_possible" CHECK ("duty_costs"."failure_cost" > 0)
);
--> statement-breakpoint
CREATE TABLE "standings" (
	"vehicle_id" uuid PRIMARY KEY NOT NULL,
	"fleet_id" uuid NOT NULL,
	"depot" text NOT NULL,
	"duty_group" text NOT NULL,
	"search_key" text NOT NULL,
	"unit_order" text NOT NULL,
	"state" text NOT NULL,
	"life_used" double precision,
	"life_in7" double precision,
	"life_in28" double precision,
	"odometer_now_km" double precision,
	"binds" text,
	"certainty" text,
	"due_p_10" date,
	"due_p_50" date,
	"due_p_90" date,
	"rate_km_per_day" double precision,
	"rate_low_km_per_day" double precision,
	"rate_high_km_per_day" double precision,
	"rate_readings" integer NOT NULL,
	"rate_borrowed" boolean NOT NULL,
	"leans_on_group" boolean NOT NULL,
	"failure_cost" double precision NOT NULL,
	"pressure" double precision
);
--> statement-breakpoint
CREATE TABLE "weighings" (
	"fleet_id" uuid PRIMARY KEY NOT NULL,
	"weighed_on" date NOT NULL
);
--> statement-breakpoint
ALTER TABLE "fleets" ADD COLUMN "currency" text DEFAULT 'EUR' NOT NULL;--> statement-breakpoint
ALTER TABLE "fleets" ADD COLUMN "failure_cost" integer DEFAULT 500 NOT NULL;--> statement-breakpoint
ALTER TABLE "fleets" ADD COLUMN "wear_cost_per_percent" numeric(7, 2) DEFAULT 0.5 NOT NULL;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "failure_cost" integer;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "retires_on" date;--> statement-breakpoint
ALTER TABLE "duty_costs" ADD CONSTRAINT "duty_costs_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "standings" ADD CONSTRAINT "standings_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "standings_by_life" ON "standings" USING btree ("fleet_id","life_used" desc nulls last,"unit_order");--> statement-breakpoint
CREATE INDEX "standings_by_pressure" ON "standings" USING btree ("fleet_id","pressure" desc nulls last,"unit_order");--> statement-breakpoint
CREATE INDEX "standings_by_due" ON "standings" USING btree ("fleet_id","due_p_50","unit_order");--> statement-breakpoint
CREATE INDEX "standings_by_unit" ON "standings" USING btree ("fleet_id","unit_order");--> statement-breakpoint
CREATE INDEX "standings_by_place" ON "standings" USING btree ("fleet_id","depot","duty_group","state");--> statement-breakpoint
CREATE INDEX "standings_leaning" ON "standings" USING btree ("fleet_id","duty_group") WHERE "standings"."leans_on_group";--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_failure_cost_possible" CHECK ("vehicles"."failure_cost" > 0);