CREATE TABLE "driver_addresses" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"secret_sha256" text NOT NULL,
	"made_by" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "driver_addresses_fleetId_unique" UNIQUE("fleet_id"),
	CONSTRAINT "driver_addresses_secretSha256_unique" UNIQUE("secret_sha256")
);
--> statement-breakpoint
CREATE TABLE "misfire_cases" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"opened_on" date NOT NULL,
	"opened_km" numeric(9, 1),
	"points_to" jsonb,
	"work_order_id" uuid,
	"watch_until_km" numeric(9, 1),
	"ended_on" date,
	"ended_km" numeric(9, 1),
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "misfire_cases_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "misfire_cases_fleetId_number_unique" UNIQUE("fleet_id","number"),
	CONSTRAINT "misfire_cases_state_known" CHECK ("misfire_cases"."state" in ('open','mending','referred','watching','closed')),
	CONSTRAINT "misfire_cases_ended_whole" CHECK (("misfire_cases"."state" = 'closed') = ("misfire_cases"."ended_on" is not null))
);
--> statement-breakpoint
CREATE TABLE "misfire_entries" (
	"id" uuid PRIMARY KEY NOT NULL,
	"fleet_id" uuid NOT NULL,
	"case_id" uuid NOT NULL,
	"ordinal" integer NOT NULL,
	"said" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"said_by" uuid,
	"driver" text,
	"taken_back_at" timestamp with time zone,
	"taken_back_by" uuid,
	CONSTRAINT "misfire_entries_caseId_ordinal_unique" UNIQUE("case_id","ordinal"),
	CONSTRAINT "misfire_entries_taken_back_by_someone" CHECK (("misfire_entries"."taken_back_at" is null) = ("misfire_entries"."taken_back_by" is null))
);
--> statement-breakpoint
ALTER TABLE "follow_ups" ALTER COLUMN "work_order_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD COLUMN "misfire_case_id" uuid;--> statement-breakpoint
ALTER TABLE "driver_addresses" ADD CONSTRAINT "driver_addresses_fleet_id_made_by_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","made_by") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "misfire_cases" ADD CONSTRAINT "misfire_cases_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "misfire_cases" ADD CONSTRAINT "misfire_cases_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "misfire_entries" ADD CONSTRAINT "misfire_entries_fleet_id_case_id_misfire_cases_fleet_id_id_fk" FOREIGN KEY ("fleet_id","case_id") REFERENCES "public"."misfire_cases"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "misfire_entries" ADD CONSTRAINT "misfire_entries_fleet_id_said_by_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","said_by") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "misfire_cases_one_a_vehicle" ON "misfire_cases" USING btree ("vehicle_id") WHERE "misfire_cases"."state" <> 'closed';--> statement-breakpoint
CREATE INDEX "misfire_cases_work_order_id_index" ON "misfire_cases" USING btree ("work_order_id");--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_from_somewhere" CHECK (num_nonnulls("follow_ups"."work_order_id", "follow_ups"."misfire_case_id") > 0);--> statement-breakpoint
-- By hand: the two tables name each other's neighbours, and the schema files import one another in one direction only.
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_misfire_case_of_fleet" FOREIGN KEY ("fleet_id","misfire_case_id") REFERENCES "public"."misfire_cases"("fleet_id","id") ON DELETE no action ON UPDATE no action;
