CREATE TABLE "bench_results" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"tool" text NOT NULL,
	"input" jsonb NOT NULL,
	"summary" text NOT NULL,
	"work_order_id" uuid,
	"kept_by" uuid NOT NULL,
	"kept_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "deliveries" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"received_on" date NOT NULL,
	"order_reference" text,
	"part_id" uuid NOT NULL,
	"ordered_quantity" integer NOT NULL,
	"delivered_number" text NOT NULL,
	"quantity" integer NOT NULL,
	"source" text NOT NULL,
	"price" numeric(9, 2),
	"lot" text,
	"gaps_mm" numeric(6, 4)[] NOT NULL,
	"gaps_as_typed" text,
	"differs_from_sample" text[] NOT NULL,
	"verdict" text NOT NULL,
	"reasons" jsonb NOT NULL,
	"settled" text,
	"settled_reason" text,
	"settled_by" uuid,
	"checked_by" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "deliveries_counts_possible" CHECK ("deliveries"."ordered_quantity" > 0 and "deliveries"."quantity" >= 0),
	CONSTRAINT "deliveries_settled_whole" CHECK (num_nulls("deliveries"."settled", "deliveries"."settled_reason", "deliveries"."settled_by") in (0, 3)),
	CONSTRAINT "deliveries_settled_what_was_held" CHECK ("deliveries"."settled" is null or "deliveries"."verdict" <> 'accepted')
);
--> statement-breakpoint
CREATE TABLE "policy_choices" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"policy" text NOT NULL,
	"scope" text NOT NULL,
	"scope_key" text,
	"school" text NOT NULL,
	"why" text NOT NULL,
	"chosen_by" uuid NOT NULL,
	"chosen_at" timestamp with time zone NOT NULL,
	CONSTRAINT "policy_choices_fleetId_policy_scope_scopeKey_unique" UNIQUE NULLS NOT DISTINCT("fleet_id","policy","scope","scope_key"),
	CONSTRAINT "policy_choices_scope_whole" CHECK (("policy_choices"."scope" = 'shop') = ("policy_choices"."scope_key" is null))
);
--> statement-breakpoint
CREATE TABLE "wrenches" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"name" text NOT NULL,
	"unit" text NOT NULL,
	"min" numeric(7, 2) NOT NULL,
	"max" numeric(7, 2) NOT NULL,
	"step" numeric(6, 3) NOT NULL,
	"length_mm" integer NOT NULL,
	"calibrated_on" date NOT NULL,
	"retired" boolean DEFAULT false NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "wrenches_fleetId_name_unique" UNIQUE("fleet_id","name"),
	CONSTRAINT "wrenches_range" CHECK (0 <= "wrenches"."min" and "wrenches"."min" < "wrenches"."max" and "wrenches"."step" > 0),
	CONSTRAINT "wrenches_length_possible" CHECK ("wrenches"."length_mm" between 10 and 3000)
);
--> statement-breakpoint
CREATE TABLE "heat_crosses" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"maker_a" text NOT NULL,
	"heat_a" integer NOT NULL,
	"maker_b" text NOT NULL,
	"heat_b" integer NOT NULL,
	"source" text NOT NULL,
	CONSTRAINT "heat_crosses_fleetId_makerA_heatA_makerB_heatB_unique" UNIQUE("fleet_id","maker_a","heat_a","maker_b","heat_b"),
	CONSTRAINT "heat_crosses_two_makers" CHECK ("heat_crosses"."maker_a" <> "heat_crosses"."maker_b")
);
--> statement-breakpoint
CREATE TABLE "sheet_checks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"spec_sheet_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "sheet_checks_specSheetId_personId_unique" UNIQUE("spec_sheet_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "supersessions" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"from_part_id" uuid NOT NULL,
	"to_part_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"since" date,
	"note" text,
	"source" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "supersessions_fromPartId_toPartId_unique" UNIQUE("from_part_id","to_part_id"),
	CONSTRAINT "supersessions_of_another" CHECK ("supersessions"."from_part_id" <> "supersessions"."to_part_id"),
	CONSTRAINT "supersessions_kind_known" CHECK ("supersessions"."kind" in ('renumbered','redesigned'))
);
--> statement-breakpoint
ALTER TABLE "spec_sheets" DROP CONSTRAINT "spec_sheets_one_revision";--> statement-breakpoint
ALTER TABLE "spec_sheets" DROP CONSTRAINT "spec_sheets_some_interval";--> statement-breakpoint
ALTER TABLE "spec_sheets" ALTER COLUMN "gap_min_mm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "spec_sheets" ALTER COLUMN "gap_max_mm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "spec_sheets" ALTER COLUMN "gap_as_typed" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "spec_sheets" ALTER COLUMN "torque_min_nm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "spec_sheets" ALTER COLUMN "torque_max_nm" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "spec_sheets" ALTER COLUMN "torque_as_typed" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "spec_sheets" ALTER COLUMN "interval_as_typed" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "coils" jsonb;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "distributor" jsonb;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "lead_lengths_mm" integer[];--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "compression_ratio" numeric(4, 1);--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "intake_kpa" integer;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "access" jsonb;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "fasteners" jsonb;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "weak_points" text[];--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "name" text;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "pitch_mm" numeric(6, 4);--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "projection_mm" numeric(6, 4);--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "resistor" boolean;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "terminal" text;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "heat_range" integer;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "shell" text;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "pre_gap_mm" numeric(6, 4);--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "pack_size" integer;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "price" numeric(9, 2);--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "lead_days" integer;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "approved_sources" text[];--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "on_hand" integer;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "lengths_mm" integer[];--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "note" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "built_from" date;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "built_to" date;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "serial_from" integer;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "serial_to" integer;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "fuel" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "induction" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "market" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "gap_target_mm" numeric(6, 4);--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "angle_deg" integer;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "engine_temperature" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "lubricant" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "regap" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "expires_on" date;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "built_on" date;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "fuel" text;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "induction" text;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "market" text;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "steering" text;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "settled_sheet_id" uuid;--> statement-breakpoint
ALTER TABLE "vehicle_status" ADD COLUMN "limit_share" double precision DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "work_orders" ADD COLUMN "release_reason" text;--> statement-breakpoint
ALTER TABLE "bench_results" ADD CONSTRAINT "bench_results_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bench_results" ADD CONSTRAINT "bench_results_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_fleet_id_part_id_parts_fleet_id_id_fk" FOREIGN KEY ("fleet_id","part_id") REFERENCES "public"."parts"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "policy_choices" ADD CONSTRAINT "policy_choices_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wrenches" ADD CONSTRAINT "wrenches_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet_checks" ADD CONSTRAINT "sheet_checks_fleet_id_spec_sheet_id_spec_sheets_fleet_id_id_fk" FOREIGN KEY ("fleet_id","spec_sheet_id") REFERENCES "public"."spec_sheets"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supersessions" ADD CONSTRAINT "supersessions_fleet_id_from_part_id_parts_fleet_id_id_fk" FOREIGN KEY ("fleet_id","from_part_id") REFERENCES "public"."parts"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supersessions" ADD CONSTRAINT "supersessions_fleet_id_to_part_id_parts_fleet_id_id_fk" FOREIGN KEY ("fleet_id","to_part_id") REFERENCES "public"."parts"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bench_results_fleet_id_work_order_id_index" ON "bench_results" USING btree ("fleet_id","work_order_id");--> statement-breakpoint
CREATE INDEX "deliveries_fleet_id_received_on_index" ON "deliveries" USING btree ("fleet_id","received_on");--> statement-breakpoint
CREATE INDEX "sheet_checks_fleet_id_index" ON "sheet_checks" USING btree ("fleet_id");--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD CONSTRAINT "spec_sheets_one_revision" UNIQUE NULLS NOT DISTINCT("engine_family_id","component","variant","model_year_from","model_year_to","built_from","built_to","serial_from","serial_to","fuel","induction","market","source_document","revision");--> statement-breakpoint
ALTER TABLE "engine_families" ADD CONSTRAINT "engine_families_ratio_possible" CHECK ("engine_families"."compression_ratio" between 4 and 20);--> statement-breakpoint
ALTER TABLE "engine_families" ADD CONSTRAINT "engine_families_intake_possible" CHECK ("engine_families"."intake_kpa" between 50 and 500);--> statement-breakpoint
ALTER TABLE "parts" ADD CONSTRAINT "parts_counts_possible" CHECK ("parts"."pack_size" > 0 and "parts"."lead_days" >= 0 and "parts"."on_hand" >= 0);--> statement-breakpoint
ALTER TABLE "parts" ADD CONSTRAINT "parts_price_possible" CHECK ("parts"."price" >= 0);--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD CONSTRAINT "spec_sheets_target_in_range" CHECK ("spec_sheets"."gap_target_mm" between "spec_sheets"."gap_min_mm" and "spec_sheets"."gap_max_mm");--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD CONSTRAINT "spec_sheets_plug_is_whole" CHECK ("spec_sheets"."component" <> 'plug' or (num_nulls("spec_sheets"."gap_min_mm", "spec_sheets"."gap_max_mm", "spec_sheets"."gap_as_typed", "spec_sheets"."torque_min_nm", "spec_sheets"."torque_max_nm", "spec_sheets"."torque_as_typed", "spec_sheets"."interval_as_typed") = 0 and coalesce("spec_sheets"."interval_km", "spec_sheets"."interval_months") > 0));