CREATE TABLE "electrode_ceilings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"electrode" text NOT NULL,
	"km" numeric(9, 1) NOT NULL,
	"why" text NOT NULL,
	CONSTRAINT "electrode_ceilings_fleetId_electrode_unique" UNIQUE("fleet_id","electrode"),
	CONSTRAINT "electrode_ceilings_possible" CHECK ("electrode_ceilings"."km" > 0)
);
--> statement-breakpoint
CREATE TABLE "engine_hour_readings" (
	"vehicle_id" uuid NOT NULL,
	"read_on" date NOT NULL,
	"hours" numeric(7, 1) NOT NULL,
	"fleet_id" uuid NOT NULL,
	"as_typed" text NOT NULL,
	"source" text NOT NULL,
	"state" text NOT NULL,
	"doubt" text,
	"settled_by" uuid,
	"settled_at" timestamp with time zone,
	"entered_by" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "engine_hour_readings_vehicle_id_read_on_hours_pk" PRIMARY KEY("vehicle_id","read_on","hours"),
	CONSTRAINT "engine_hour_readings_possible" CHECK ("engine_hour_readings"."hours" between 0 and 99999)
);
--> statement-breakpoint
ALTER TABLE "deferrals" ALTER COLUMN "until" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "vehicle_status" ADD COLUMN "hour_meter" jsonb;--> statement-breakpoint
ALTER TABLE "vehicle_status" ADD COLUMN "limit_by" text DEFAULT 'sheet' NOT NULL;--> statement-breakpoint
ALTER TABLE "deferrals" ADD COLUMN "fault" text;--> statement-breakpoint
ALTER TABLE "electrode_ceilings" ADD CONSTRAINT "electrode_ceilings_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "engine_hour_readings" ADD CONSTRAINT "engine_hour_readings_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "engine_hour_readings_suspect" ON "engine_hour_readings" USING btree ("fleet_id") WHERE "engine_hour_readings"."state" = 'suspect';--> statement-breakpoint
ALTER TABLE "deferrals" ADD CONSTRAINT "deferrals_end_somehow" CHECK ("deferrals"."until" is not null or "deferrals"."fault" is not null);