DROP INDEX "due_status_by_life";--> statement-breakpoint
DROP INDEX "due_status_by_pressure";--> statement-breakpoint
DROP INDEX "due_status_by_due";--> statement-breakpoint
DROP INDEX "due_status_by_unit";--> statement-breakpoint
DROP INDEX "due_status_borrowing";--> statement-breakpoint
ALTER TABLE "due_status" DROP CONSTRAINT "due_status_pkey";--> statement-breakpoint
ALTER TABLE "due_inputs" ADD COLUMN "components" jsonb;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "component" text;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "leads" boolean;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "vehicle_pressure" double precision;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "fitment" text;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "fitment_why" text;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "spec_sheet_id" uuid;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "limit_km" numeric(9, 1);--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "limit_by" text;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "limit_months" integer;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "limit_share" double precision;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "fitted_on" date;--> statement-breakpoint
ALTER TABLE "due_status" ADD COLUMN "fitted_km" numeric(9, 1);--> statement-breakpoint
UPDATE due_inputs SET components = jsonb_build_array(jsonb_build_object(
  'component', 'plug', 'fitment', fitment, 'fitmentWhy', fitment_why, 'specSheetId', spec_sheet_id, 'limitKm', limit_km,
  'limitBy', limit_by, 'limitMonths', limit_months, 'limitShare', limit_share, 'clocks', clocks));--> statement-breakpoint
UPDATE due_status t SET component = 'plug', leads = true, vehicle_pressure = t.pressure,
  fitment = coalesce(s.fitment, 'no-spec'), fitment_why = s.fitment_why, spec_sheet_id = s.spec_sheet_id,
  limit_km = s.limit_km, limit_by = coalesce(s.limit_by, 'sheet'), limit_months = s.limit_months, limit_share = coalesce(s.limit_share, 1)
FROM due_status o LEFT JOIN due_inputs s ON s.vehicle_id = o.vehicle_id WHERE o.vehicle_id = t.vehicle_id;--> statement-breakpoint
-- The coil of an engine with a coil rail is that rail.
UPDATE fitted_components c SET component = 'rail' FROM vehicles v JOIN engine_families f ON f.id = v.engine_family_id
WHERE v.id = c.vehicle_id AND f.ignition = 'coil_rail' AND c.component = 'coil';--> statement-breakpoint
-- The other components are worked out when somebody next looks.
DELETE FROM due_runs;--> statement-breakpoint
ALTER TABLE "due_inputs" ALTER COLUMN "components" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "due_status" ALTER COLUMN "component" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "due_status" ALTER COLUMN "leads" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "due_status" ALTER COLUMN "fitment" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "due_status" ALTER COLUMN "limit_by" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "due_status" ALTER COLUMN "limit_share" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "due_status" ADD CONSTRAINT "due_status_vehicle_id_component_pk" PRIMARY KEY("vehicle_id","component");--> statement-breakpoint
CREATE INDEX "due_status_of_component" ON "due_status" USING btree ("fleet_id","component","life_used" desc nulls last,"unit_order");--> statement-breakpoint
CREATE INDEX "due_status_by_life" ON "due_status" USING btree ("fleet_id","life_used" desc nulls last,"unit_order") WHERE "due_status"."leads";--> statement-breakpoint
CREATE INDEX "due_status_by_pressure" ON "due_status" USING btree ("fleet_id","vehicle_pressure" desc nulls last,"unit_order") WHERE "due_status"."leads";--> statement-breakpoint
CREATE INDEX "due_status_by_due" ON "due_status" USING btree ("fleet_id","due_p_50","unit_order") WHERE "due_status"."leads";--> statement-breakpoint
CREATE INDEX "due_status_by_unit" ON "due_status" USING btree ("fleet_id","unit_order") WHERE "due_status"."leads";--> statement-breakpoint
CREATE INDEX "due_status_borrowing" ON "due_status" USING btree ("fleet_id","duty_group") WHERE "due_status"."borrows_group_rate" and "due_status"."leads";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "fitment";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "fitment_why";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "spec_sheet_id";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "limit_km";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "limit_by";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "limit_months";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "limit_share";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "clocks";--> statement-breakpoint
-- Vehicles are counted, not their components: only rows that lead say where a vehicle stands.
CREATE OR REPLACE FUNCTION count_due_status() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF tg_op = 'INSERT' THEN
    INSERT INTO due_counts (fleet_id, depot, duty_group, state, n)
    SELECT fleet_id, depot, duty_group, state, count(*) FROM now_there WHERE leads GROUP BY 1, 2, 3, 4;
  ELSIF tg_op = 'DELETE' THEN
    INSERT INTO due_counts (fleet_id, depot, duty_group, state, n)
    SELECT fleet_id, depot, duty_group, state, -count(*) FROM was_there WHERE leads GROUP BY 1, 2, 3, 4;
  ELSE
    INSERT INTO due_counts (fleet_id, depot, duty_group, state, n)
    SELECT fleet_id, depot, duty_group, state, sum(n) FROM (
      SELECT fleet_id, depot, duty_group, state, 1 AS n FROM now_there WHERE leads
      UNION ALL
      SELECT fleet_id, depot, duty_group, state, -1 FROM was_there WHERE leads
    ) changes GROUP BY 1, 2, 3, 4 HAVING sum(n) <> 0;
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
ALTER TABLE "due_status" ADD CONSTRAINT "due_status_component_known" CHECK ("due_status"."component" in ('plug','coil','rail','boot','lead','lead_set','cap','rotor','seal','consumable'));