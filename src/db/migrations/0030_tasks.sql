CREATE TABLE "task_places" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"task_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"component" text NOT NULL,
	"cylinder" integer NOT NULL,
	"position" text NOT NULL,
	"live" boolean DEFAULT true NOT NULL,
	"moved_to_id" uuid,
	"spec_sheet_id" uuid,
	"expected_number" text,
	"expected_tag" text,
	"observed_number" text,
	"believed_number" text,
	"tag_out" text,
	"removed_gap_mm" numeric(6, 4),
	"removed_gap_as_typed" text,
	"conditions" text[],
	"severities" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"grade" text,
	"breakaway_feel" text,
	"breakaway_torque_nm" numeric(6, 2),
	"breakaway_torque_as_typed" text,
	"primary_ohm" numeric(14, 2),
	"primary_ohm_as_typed" text,
	"secondary_ohm" numeric(14, 2),
	"secondary_ohm_as_typed" text,
	"ohm" numeric(14, 2),
	"ohm_as_typed" text,
	"result" text,
	"good_for_km" numeric(9, 1),
	"good_for_as_typed" text,
	"removal_reason" text,
	"new_number" text,
	"tag_in" text,
	"new_gap_mm" numeric(6, 4),
	"new_gap_as_typed" text,
	"new_lot" text,
	"compound" text,
	"compound_batch" text,
	"torque_method" text,
	"wrench_setting_nm" numeric(6, 2),
	"wrench_setting_as_typed" text,
	"installed_torque_nm" numeric(6, 2),
	"installed_torque_as_typed" text,
	"curve" jsonb,
	"soaked_at" timestamp with time zone,
	"left_why" text,
	"remark" text,
	"done_at" timestamp with time zone,
	"done_by" uuid,
	"released_reason" text,
	"released_by" uuid,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "task_places_workOrderId_component_cylinder_position_unique" UNIQUE("work_order_id","component","cylinder","position"),
	CONSTRAINT "task_places_gap_possible" CHECK ("task_places"."new_gap_mm" between 0.4 and 2.0),
	CONSTRAINT "task_places_done_by_someone" CHECK (("task_places"."done_at" is null) = ("task_places"."done_by" is null)),
	CONSTRAINT "task_places_moved_is_not_live" CHECK ("task_places"."moved_to_id" is null or not "task_places"."live")
);
--> statement-breakpoint
CREATE TABLE "work_tasks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"ordinal" integer NOT NULL,
	"action" text NOT NULL,
	"component" text NOT NULL,
	"why" text NOT NULL,
	"note" text,
	"finding_key" text,
	"spec_sheet_id" uuid,
	"release_reason" text,
	"taken_off_at" timestamp with time zone,
	"taken_off_by" uuid,
	"taken_off_why" text,
	"created_by" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "work_tasks_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "work_tasks_workOrderId_ordinal_unique" UNIQUE("work_order_id","ordinal"),
	CONSTRAINT "work_tasks_replace_by_a_sheet" CHECK ("work_tasks"."action" <> 'replace' or "work_tasks"."spec_sheet_id" is not null),
	CONSTRAINT "work_tasks_taken_off_whole" CHECK (num_nulls("work_tasks"."taken_off_at", "work_tasks"."taken_off_by", "work_tasks"."taken_off_why") in (0, 3))
);
--> statement-breakpoint
-- Every order so far was one task: all its plugs replaced.
INSERT INTO "work_tasks" ("fleet_id", "work_order_id", "ordinal", "action", "component", "why", "spec_sheet_id", "release_reason", "created_by", "created_at")
  SELECT "fleet_id", "id", 1, 'replace', 'plug', 'due', "spec_sheet_id", "release_reason", "opened_by", "created_at" FROM "work_orders";--> statement-breakpoint
INSERT INTO "task_places" ("id", "fleet_id", "work_order_id", "task_id", "vehicle_id", "component", "cylinder", "position", "live", "spec_sheet_id",
    "expected_number", "observed_number", "believed_number", "removed_gap_mm", "removed_gap_as_typed", "conditions", "severities", "breakaway_feel",
    "breakaway_torque_nm", "breakaway_torque_as_typed", "new_number", "new_gap_mm", "new_gap_as_typed", "new_lot", "compound", "compound_batch",
    "torque_method", "wrench_setting_nm", "wrench_setting_as_typed", "installed_torque_nm", "installed_torque_as_typed", "curve", "soaked_at",
    "remark", "done_at", "done_by", "released_reason", "released_by", "version")
  SELECT s."id", s."fleet_id", s."work_order_id", t."id", o."vehicle_id", 'plug', s."cylinder", s."position", o."state" NOT IN ('closed', 'cancelled'), s."spec_sheet_id",
    s."expected_number", s."observed_number", s."believed_number", s."removed_gap_mm", s."removed_gap_as_typed", s."conditions", s."severities", s."breakaway_feel",
    s."breakaway_torque_nm", s."breakaway_torque_as_typed", s."new_number", s."new_gap_mm", s."new_gap_as_typed", s."new_lot", s."compound", s."compound_batch",
    s."torque_method", s."wrench_setting_nm", s."wrench_setting_as_typed", s."installed_torque_nm", s."installed_torque_as_typed", s."curve", s."soaked_at",
    s."remark", s."done_at", s."done_by", s."released_reason", s."released_by", s."version"
  FROM "work_order_sites" s JOIN "work_orders" o ON o."id" = s."work_order_id" JOIN "work_tasks" t ON t."work_order_id" = o."id";--> statement-breakpoint
-- A rail stands under the first plug that it fires, as a coil does: an engine of two banks has two.
UPDATE "fitted_components" f SET "cylinder" = c."cylinder"
  FROM "vehicles" v JOIN "engine_cylinders" c ON c."engine_family_id" = v."engine_family_id" AND c."bank" = 1 AND c."place" = 0
  WHERE f."vehicle_id" = v."id" AND f."component" = 'rail' AND f."cylinder" = 0;--> statement-breakpoint
DROP TABLE "work_order_sites";--> statement-breakpoint
ALTER TABLE "work_orders" DROP CONSTRAINT "work_orders_fleet_id_spec_sheet_id_spec_sheets_fleet_id_id_fk";
--> statement-breakpoint
DROP INDEX "work_orders_one_open_a_component";--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "primary_min_ohm" numeric(14, 2);--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "primary_max_ohm" numeric(14, 2);--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "primary_as_typed" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "secondary_min_ohm" numeric(14, 2);--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "secondary_max_ohm" numeric(14, 2);--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "secondary_as_typed" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "min_ohm" numeric(14, 2);--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "max_ohm" numeric(14, 2);--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "ohm_as_typed" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "max_ohm_per_metre" numeric(14, 2);--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "checked_on" date;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "checked_km" numeric(9, 1);--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "good_for_km" numeric(9, 1);--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "checked_from" text;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "checked_by_work_order_id" uuid;--> statement-breakpoint
ALTER TABLE "task_places" ADD CONSTRAINT "task_places_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task_places" ADD CONSTRAINT "task_places_fleet_id_task_id_work_tasks_fleet_id_id_fk" FOREIGN KEY ("fleet_id","task_id") REFERENCES "public"."work_tasks"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task_places" ADD CONSTRAINT "task_places_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task_places" ADD CONSTRAINT "task_places_fleet_id_spec_sheet_id_spec_sheets_fleet_id_id_fk" FOREIGN KEY ("fleet_id","spec_sheet_id") REFERENCES "public"."spec_sheets"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task_places" ADD CONSTRAINT "task_places_fleet_id_moved_to_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","moved_to_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_tasks" ADD CONSTRAINT "work_tasks_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_tasks" ADD CONSTRAINT "work_tasks_fleet_id_spec_sheet_id_spec_sheets_fleet_id_id_fk" FOREIGN KEY ("fleet_id","spec_sheet_id") REFERENCES "public"."spec_sheets"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "task_places_in_one_open_task" ON "task_places" USING btree ("vehicle_id","component","cylinder","position") WHERE "task_places"."live";--> statement-breakpoint
CREATE INDEX "work_orders_vehicle_id_index" ON "work_orders" USING btree ("vehicle_id");--> statement-breakpoint
ALTER TABLE "work_orders" DROP COLUMN "component";--> statement-breakpoint
ALTER TABLE "work_orders" DROP COLUMN "spec_sheet_id";--> statement-breakpoint
ALTER TABLE "work_orders" DROP COLUMN "release_reason";--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD CONSTRAINT "spec_sheets_resistance_ranges" CHECK ("spec_sheets"."primary_min_ohm" <= "spec_sheets"."primary_max_ohm" and "spec_sheets"."secondary_min_ohm" <= "spec_sheets"."secondary_max_ohm" and "spec_sheets"."min_ohm" <= "spec_sheets"."max_ohm");--> statement-breakpoint
ALTER TABLE "fitted_components" ADD CONSTRAINT "fitted_components_checked_whole" CHECK (num_nulls("fitted_components"."checked_on", "fitted_components"."checked_km", "fitted_components"."good_for_km") in (0, 3));