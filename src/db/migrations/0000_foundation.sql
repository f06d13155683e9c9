CREATE TABLE "account" (
	"id" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"user_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "api_tokens" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"name" text NOT NULL,
	"token_sha256" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"revoked_at" timestamp with time zone,
	CONSTRAINT "api_tokens_tokenSha256_unique" UNIQUE("token_sha256")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"user_id" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "sign_in_failures" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"email" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "user" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "user_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "engine_cylinders" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"engine_family_id" uuid NOT NULL,
	"cylinder" integer NOT NULL,
	"bank" integer NOT NULL,
	"bank_place" text NOT NULL,
	"place" integer NOT NULL,
	CONSTRAINT "engine_cylinders_engineFamilyId_cylinder_unique" UNIQUE("engine_family_id","cylinder"),
	CONSTRAINT "engine_cylinders_engineFamilyId_bank_place_unique" UNIQUE("engine_family_id","bank","place"),
	CONSTRAINT "engine_cylinders_possible" CHECK ("engine_cylinders"."cylinder" between 1 and 16 and "engine_cylinders"."bank" in (1, 2) and "engine_cylinders"."place" between 0 and 15)
);
--> statement-breakpoint
CREATE TABLE "engine_families" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"displacement_l" numeric(4, 2),
	"arrangement" text NOT NULL,
	"mounting" text NOT NULL,
	"ignition" text NOT NULL,
	"induction" text NOT NULL,
	"head_material" text NOT NULL,
	"hybrid" boolean DEFAULT false NOT NULL,
	"plugs_per_cylinder" integer NOT NULL,
	"firing_order" integer[] NOT NULL,
	"variants" text[] NOT NULL,
	"service_minutes" integer NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "engine_families_fleetId_code_unique" UNIQUE("fleet_id","code"),
	CONSTRAINT "engine_families_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "engine_families_plugs_per_cylinder" CHECK ("engine_families"."plugs_per_cylinder" in (1, 2)),
	CONSTRAINT "engine_families_minutes_possible" CHECK ("engine_families"."service_minutes" between 5 and 2880)
);
--> statement-breakpoint
CREATE TABLE "parts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"number" text NOT NULL,
	"number_key" text NOT NULL,
	"maker" text NOT NULL,
	"kind" text NOT NULL,
	"electrode" text,
	"thread" text,
	"seat" text,
	"reach_mm" numeric(6, 4),
	"hex_mm" numeric(6, 4),
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "parts_fleetId_numberKey_unique" UNIQUE("fleet_id","number_key"),
	CONSTRAINT "parts_fleetId_id_unique" UNIQUE("fleet_id","id")
);
--> statement-breakpoint
CREATE TABLE "spec_sheets" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"engine_family_id" uuid NOT NULL,
	"component" text NOT NULL,
	"variant" text,
	"model_year_from" integer,
	"model_year_to" integer,
	"part_id" uuid NOT NULL,
	"gap_min_mm" numeric(6, 4) NOT NULL,
	"gap_max_mm" numeric(6, 4) NOT NULL,
	"gap_as_typed" text NOT NULL,
	"torque_min_nm" numeric(6, 2) NOT NULL,
	"torque_max_nm" numeric(6, 2) NOT NULL,
	"torque_as_typed" text NOT NULL,
	"interval_km" numeric(9, 1),
	"interval_severe_km" numeric(9, 1),
	"interval_months" integer,
	"interval_as_typed" text NOT NULL,
	"source_kind" text NOT NULL,
	"source_document" text NOT NULL,
	"source_dated" date,
	"revision" integer NOT NULL,
	"entered_by" text NOT NULL,
	"checked_by" text,
	"note" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "spec_sheets_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "spec_sheets_one_revision" UNIQUE NULLS NOT DISTINCT("engine_family_id","component","variant","model_year_from","model_year_to","source_document","revision"),
	CONSTRAINT "spec_sheets_gap_range" CHECK (0 < "spec_sheets"."gap_min_mm" and "spec_sheets"."gap_min_mm" <= "spec_sheets"."gap_max_mm"),
	CONSTRAINT "spec_sheets_torque_range" CHECK (0 < "spec_sheets"."torque_min_nm" and "spec_sheets"."torque_min_nm" <= "spec_sheets"."torque_max_nm"),
	CONSTRAINT "spec_sheets_some_interval" CHECK (coalesce("spec_sheets"."interval_km", "spec_sheets"."interval_months") > 0),
	CONSTRAINT "spec_sheets_checked_by_another" CHECK ("spec_sheets"."checked_by" <> "spec_sheets"."entered_by")
);
--> statement-breakpoint
CREATE TABLE "audit_trail" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"fleet_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" uuid,
	"action" text NOT NULL,
	"entity" text NOT NULL,
	"entity_id" text NOT NULL,
	"changes" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "bays" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"depot_id" uuid NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "bays_fleetId_depotId_name_unique" UNIQUE("fleet_id","depot_id","name"),
	CONSTRAINT "bays_fleetId_id_unique" UNIQUE("fleet_id","id")
);
--> statement-breakpoint
CREATE TABLE "column_mappings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"header" text NOT NULL,
	"mapping" jsonb NOT NULL,
	"options" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "depots" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"name" text NOT NULL,
	"time_zone" text DEFAULT 'Etc/UTC' NOT NULL,
	CONSTRAINT "depots_fleetId_name_unique" UNIQUE("fleet_id","name"),
	CONSTRAINT "depots_fleetId_id_unique" UNIQUE("fleet_id","id")
);
--> statement-breakpoint
CREATE TABLE "fleets" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"is_demo" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "imports" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"file_name" text NOT NULL,
	"content" text NOT NULL,
	"mapping" jsonb NOT NULL,
	"options" jsonb NOT NULL,
	"state" text DEFAULT 'checked' NOT NULL,
	"counts" jsonb,
	"created_by" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"applied_at" timestamp with time zone,
	CONSTRAINT "imports_state_known" CHECK ("imports"."state" in ('checked','applied','discarded'))
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"user_id" text,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"unit_system" text DEFAULT 'metric' NOT NULL,
	"hybrid_qualified" boolean DEFAULT false NOT NULL,
	"shift_minutes" integer DEFAULT 450 NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "people_userId_unique" UNIQUE("user_id"),
	CONSTRAINT "people_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "people_role_known" CHECK ("people"."role" in ('supervisor','technician','parts_clerk','viewer')),
	CONSTRAINT "people_unit_system_known" CHECK ("people"."unit_system" in ('metric','us')),
	CONSTRAINT "people_shift_possible" CHECK ("people"."shift_minutes" between 0 and 1440)
);
--> statement-breakpoint
CREATE TABLE "vehicles" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"unit_number" text NOT NULL,
	"name" text NOT NULL,
	"depot_id" uuid NOT NULL,
	"duty_group" text NOT NULL,
	"make" text,
	"model" text,
	"model_year" integer,
	"vin" text,
	"engine_family_id" uuid NOT NULL,
	"variant" text,
	"in_service_on" date NOT NULL,
	"odometer_unit" text NOT NULL,
	"severe_duty" boolean DEFAULT false NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "vehicles_fleetId_unitNumber_unique" UNIQUE("fleet_id","unit_number"),
	CONSTRAINT "vehicles_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "vehicles_model_year_possible" CHECK ("vehicles"."model_year" between 1950 and 2100),
	CONSTRAINT "vehicles_odometer_unit_known" CHECK ("vehicles"."odometer_unit" in ('km','mi'))
);
--> statement-breakpoint
CREATE TABLE "odometer_readings" (
	"vehicle_id" uuid NOT NULL,
	"read_on" date NOT NULL,
	"odometer_km" numeric(9, 1) NOT NULL,
	"fleet_id" uuid NOT NULL,
	"as_typed" text NOT NULL,
	"unit" text NOT NULL,
	"source" text NOT NULL,
	"state" text NOT NULL,
	"doubt" text,
	"entered_by" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "odometer_readings_vehicle_id_read_on_odometer_km_pk" PRIMARY KEY("vehicle_id","read_on","odometer_km"),
	CONSTRAINT "odometer_readings_possible" CHECK ("odometer_readings"."odometer_km" between 0 and 3300000),
	CONSTRAINT "odometer_readings_unit_known" CHECK ("odometer_readings"."unit" in ('km','mi')),
	CONSTRAINT "odometer_readings_state_known" CHECK ("odometer_readings"."state" in ('accepted','suspect','rejected'))
);
--> statement-breakpoint
CREATE TABLE "vehicle_status" (
	"vehicle_id" uuid PRIMARY KEY NOT NULL,
	"fleet_id" uuid NOT NULL,
	"odometer_on" date,
	"odometer_km" numeric(9, 1),
	"suspect_readings" integer DEFAULT 0 NOT NULL,
	"rate_km_per_day" double precision,
	"rate_low_km_per_day" double precision,
	"rate_high_km_per_day" double precision,
	"rate_readings" integer DEFAULT 0 NOT NULL,
	"fitment" text NOT NULL,
	"fitment_why" text,
	"spec_sheet_id" uuid,
	"limit_km" numeric(9, 1),
	"limit_months" integer,
	"clocks" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "bookings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"bay_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"during" "tsrange" NOT NULL,
	CONSTRAINT "bookings_workOrderId_unique" UNIQUE("work_order_id")
);
--> statement-breakpoint
CREATE TABLE "fitted_components" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"component" text NOT NULL,
	"cylinder" integer NOT NULL,
	"position" text NOT NULL,
	"part_id" uuid,
	"observed_number" text,
	"believed_number" text,
	"history" text NOT NULL,
	"installed_on" date NOT NULL,
	"installed_on_certainty" text NOT NULL,
	"installed_on_as_typed" text,
	"installed_km" numeric(9, 1) NOT NULL,
	"installed_km_certainty" text NOT NULL,
	"installed_km_as_typed" text,
	"gap_mm" numeric(6, 4),
	"gap_as_typed" text,
	"spec_sheet_id" uuid,
	"work_order_id" uuid,
	"removed_on" date,
	"removed_km" numeric(9, 1),
	"removed_by_work_order_id" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "fitted_components_km_possible" CHECK ("fitted_components"."installed_km" >= 0)
);
--> statement-breakpoint
CREATE TABLE "work_order_sites" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"cylinder" integer NOT NULL,
	"position" text NOT NULL,
	"spec_sheet_id" uuid NOT NULL,
	"expected_number" text,
	"observed_number" text,
	"believed_number" text,
	"removed_gap_mm" numeric(6, 4),
	"removed_gap_as_typed" text,
	"conditions" text[],
	"breakaway_feel" text,
	"breakaway_torque_nm" numeric(6, 2),
	"breakaway_torque_as_typed" text,
	"new_number" text,
	"new_gap_mm" numeric(6, 4),
	"new_gap_as_typed" text,
	"torque_method" text,
	"wrench_setting_nm" numeric(6, 2),
	"wrench_setting_as_typed" text,
	"installed_torque_nm" numeric(6, 2),
	"installed_torque_as_typed" text,
	"remark" text,
	"done_at" timestamp with time zone,
	"done_by" uuid,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "work_order_sites_workOrderId_cylinder_position_unique" UNIQUE("work_order_id","cylinder","position"),
	CONSTRAINT "work_order_sites_gap_possible" CHECK ("work_order_sites"."new_gap_mm" between 0.4 and 2.0),
	CONSTRAINT "work_order_sites_done_by_someone" CHECK (("work_order_sites"."done_at" is null) = ("work_order_sites"."done_by" is null))
);
--> statement-breakpoint
CREATE TABLE "work_order_steps" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"key" text NOT NULL,
	"title" text NOT NULL,
	"caution" text,
	"per_site" boolean DEFAULT false NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"said_by" uuid,
	"said_at" timestamp with time zone,
	CONSTRAINT "work_order_steps_workOrderId_key_unique" UNIQUE("work_order_id","key"),
	CONSTRAINT "work_order_steps_state_known" CHECK ("work_order_steps"."state" in ('open','done','not_done'))
);
--> statement-breakpoint
CREATE TABLE "work_orders" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"component" text NOT NULL,
	"state" text NOT NULL,
	"spec_sheet_id" uuid NOT NULL,
	"minutes" integer NOT NULL,
	"opened_on" date NOT NULL,
	"opened_by" uuid NOT NULL,
	"closed_on" date,
	"closed_by" uuid,
	"closed_km" numeric(9, 1),
	"closed_km_as_typed" text,
	"reason" text,
	"note" text,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "work_orders_fleetId_number_unique" UNIQUE("fleet_id","number"),
	CONSTRAINT "work_orders_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "work_orders_closed_whole" CHECK (("work_orders"."state" = 'closed') = ("work_orders"."closed_on" is not null and "work_orders"."closed_km" is not null))
);
--> statement-breakpoint
ALTER TABLE "account" ADD CONSTRAINT "account_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "engine_cylinders" ADD CONSTRAINT "engine_cylinders_fleet_id_engine_family_id_engine_families_fleet_id_id_fk" FOREIGN KEY ("fleet_id","engine_family_id") REFERENCES "public"."engine_families"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD CONSTRAINT "spec_sheets_fleet_id_engine_family_id_engine_families_fleet_id_id_fk" FOREIGN KEY ("fleet_id","engine_family_id") REFERENCES "public"."engine_families"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD CONSTRAINT "spec_sheets_fleet_id_part_id_parts_fleet_id_id_fk" FOREIGN KEY ("fleet_id","part_id") REFERENCES "public"."parts"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bays" ADD CONSTRAINT "bays_fleet_id_depot_id_depots_fleet_id_id_fk" FOREIGN KEY ("fleet_id","depot_id") REFERENCES "public"."depots"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "column_mappings" ADD CONSTRAINT "column_mappings_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "depots" ADD CONSTRAINT "depots_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "imports" ADD CONSTRAINT "imports_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_fleet_id_depot_id_depots_fleet_id_id_fk" FOREIGN KEY ("fleet_id","depot_id") REFERENCES "public"."depots"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_fleet_id_engine_family_id_engine_families_fleet_id_id_fk" FOREIGN KEY ("fleet_id","engine_family_id") REFERENCES "public"."engine_families"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "odometer_readings" ADD CONSTRAINT "odometer_readings_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicle_status" ADD CONSTRAINT "vehicle_status_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bookings" ADD CONSTRAINT "bookings_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bookings" ADD CONSTRAINT "bookings_fleet_id_bay_id_bays_fleet_id_id_fk" FOREIGN KEY ("fleet_id","bay_id") REFERENCES "public"."bays"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bookings" ADD CONSTRAINT "bookings_fleet_id_person_id_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","person_id") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD CONSTRAINT "fitted_components_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD CONSTRAINT "fitted_components_fleet_id_part_id_parts_fleet_id_id_fk" FOREIGN KEY ("fleet_id","part_id") REFERENCES "public"."parts"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD CONSTRAINT "fitted_components_fleet_id_spec_sheet_id_spec_sheets_fleet_id_id_fk" FOREIGN KEY ("fleet_id","spec_sheet_id") REFERENCES "public"."spec_sheets"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD CONSTRAINT "work_order_sites_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD CONSTRAINT "work_order_sites_fleet_id_spec_sheet_id_spec_sheets_fleet_id_id_fk" FOREIGN KEY ("fleet_id","spec_sheet_id") REFERENCES "public"."spec_sheets"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD CONSTRAINT "work_order_steps_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_orders" ADD CONSTRAINT "work_orders_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_orders" ADD CONSTRAINT "work_orders_fleet_id_spec_sheet_id_spec_sheets_fleet_id_id_fk" FOREIGN KEY ("fleet_id","spec_sheet_id") REFERENCES "public"."spec_sheets"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "account_user_id_index" ON "account" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "session_user_id_index" ON "session" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "sign_in_failures_email_at_index" ON "sign_in_failures" USING btree ("email","at");--> statement-breakpoint
CREATE INDEX "audit_trail_fleet_id_entity_entity_id_index" ON "audit_trail" USING btree ("fleet_id","entity","entity_id");--> statement-breakpoint
CREATE UNIQUE INDEX "column_mappings_fleet_id_kind_header_index" ON "column_mappings" USING btree ("fleet_id","kind","header");--> statement-breakpoint
CREATE INDEX "imports_fleet_id_created_at_index" ON "imports" USING btree ("fleet_id","created_at");--> statement-breakpoint
CREATE UNIQUE INDEX "fitted_components_one_a_site" ON "fitted_components" USING btree ("vehicle_id","component","cylinder","position") WHERE "fitted_components"."removed_on" is null;--> statement-breakpoint
CREATE INDEX "fitted_components_vehicle_id_index" ON "fitted_components" USING btree ("vehicle_id");--> statement-breakpoint
CREATE UNIQUE INDEX "work_orders_one_open_a_component" ON "work_orders" USING btree ("vehicle_id","component") WHERE "work_orders"."state" not in ('closed', 'cancelled');