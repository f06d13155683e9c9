CREATE TABLE "deferrals" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"component" text NOT NULL,
	"until" date NOT NULL,
	"reason" text NOT NULL,
	"deferred_by" uuid NOT NULL,
	"deferred_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "deferrals" ADD CONSTRAINT "deferrals_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "deferrals_one_in_force" ON "deferrals" USING btree ("vehicle_id","component") WHERE "deferrals"."ended_at" is null;