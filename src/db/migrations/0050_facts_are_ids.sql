-- Other work has a kind, by which its gates go. What was put down under a name that no kind has is taken for fuel work where
-- its name speaks of fuel, so that a gate is never lost; a person corrects it on the page of the engine.
CREATE FUNCTION pg_temp.work_kind(what text) RETURNS text LANGUAGE sql IMMUTABLE AS $$
  SELECT CASE
    WHEN what ~* '(fuel|petrol|gasoline|diesel).*filter' THEN 'fuel_filter'
    WHEN what ~* 'inject' THEN 'injectors'
    WHEN what ~* 'fuel|petrol|gasoline|diesel|carburet' THEN 'fuel_line'
    WHEN what ~* 'intake' THEN 'intake_gaskets'
    WHEN what ~* 'air (filter|cleaner)' THEN 'air_filter'
    WHEN what ~* '(cabin|pollen) filter' THEN 'cabin_filter'
    WHEN what ~* 'thermostat' THEN 'thermostat'
    WHEN what ~* '(water|coolant) pump' THEN 'water_pump'
    WHEN what ~* 'coolant|radiator' THEN 'coolant'
    WHEN what ~* 'timing (belt|chain)' THEN 'timing_belt'
    WHEN what ~* 'belt' THEN 'drive_belt'
    WHEN what ~* 'oil' THEN 'oil_change'
    WHEN what ~* 'throttle' THEN 'throttle_body'
    WHEN what ~* 'cover gasket' THEN 'cover_gaskets'
    WHEN what ~* 'crankcase|breather' THEN 'crankcase_valve'
    WHEN what ~* 'sensor' THEN 'sensor'
    WHEN what ~* 'battery' THEN 'battery'
    ELSE 'general'
  END
$$;
--> statement-breakpoint
CREATE FUNCTION pg_temp.with_kinds(list jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT coalesce(jsonb_agg(item || jsonb_build_object('kind', pg_temp.work_kind(item ->> 'what')) ORDER BY n), '[]'::jsonb)
  FROM jsonb_array_elements(list) WITH ORDINALITY AS items (item, n)
$$;
--> statement-breakpoint
UPDATE "engine_families" SET "other_work" = pg_temp.with_kinds("other_work") WHERE "other_work" <> '[]'::jsonb;
--> statement-breakpoint
UPDATE "work_orders" SET "other_work" = pg_temp.with_kinds("other_work") WHERE "other_work" <> '[]'::jsonb;
--> statement-breakpoint
-- A compound is one of four; what was typed otherwise is kept in the remark of its place.
CREATE FUNCTION pg_temp.compound_id(typed text) RETURNS text LANGUAGE sql IMMUTABLE AS $$
  SELECT CASE
    WHEN typed IS NULL OR btrim(typed) = '' THEN NULL
    WHEN typed ~* 'copper|\ycu\y' THEN 'copper compound'
    WHEN typed ~* 'nickel|\yni\y' THEN 'nickel compound'
    WHEN typed ~* 'ceramic' THEN 'ceramic compound'
    ELSE 'other compound'
  END
$$;
--> statement-breakpoint
UPDATE "task_places" SET "remark" = left(concat_ws('; ', nullif("remark", ''), 'compound as typed: ' || "compound"), 500)
WHERE pg_temp.compound_id("compound") = 'other compound' AND "compound" <> 'other compound';
--> statement-breakpoint
UPDATE "task_places" SET "compound" = pg_temp.compound_id("compound") WHERE "compound" IS NOT NULL;
--> statement-breakpoint
UPDATE "fitted_components" SET "compound" = pg_temp.compound_id("compound") WHERE "compound" IS NOT NULL;
