-- Weak points, fasteners, steps and counts say what they are, so that no rule reads their words any more.
CREATE FUNCTION pg_temp.weak_points(points text[]) RETURNS jsonb LANGUAGE sql AS $$
  SELECT jsonb_agg(jsonb_build_object('kind',
    CASE WHEN p ~* 'seiz' THEN 'seizing' WHEN p ~* 'intake|duct|manifold' THEN 'intake' WHEN p ~* 'brittle' THEN 'brittle' ELSE 'other' END,
    'says', p) ORDER BY n)
  FROM unnest(points) WITH ORDINALITY AS t (p, n)
$$;--> statement-breakpoint
ALTER TABLE "engine_families" ALTER COLUMN "weak_points" SET DATA TYPE jsonb USING pg_temp.weak_points("weak_points");--> statement-breakpoint
UPDATE "engine_families" SET "fasteners" = (
  SELECT jsonb_agg(f || jsonb_build_object('holds',
    CASE WHEN f->>'what' ~* 'intake|manifold|duct' THEN 'intake' WHEN f->>'what' ~* 'cover|cowl' THEN 'cover' WHEN f->>'what' ~* 'coil|rail' THEN 'coil' ELSE 'other' END) ORDER BY n)
  FROM jsonb_array_elements("fasteners") WITH ORDINALITY AS t (f, n)
) WHERE jsonb_typeof("fasteners") = 'array' AND jsonb_array_length("fasteners") > 0;--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD COLUMN "kind" text;--> statement-breakpoint
UPDATE "work_order_steps" SET "kind" = regexp_replace("key", '_\d+$', '')
  WHERE regexp_replace("key", '_\d+$', '') IN ('safe','codes_before','parts','cold','isolate','gas','open','rags','clean','leads','wells','loosen_short','loosen_long','sites','clear','refit','close','count','lids','start','relearn','codes_after','road','recheck');--> statement-breakpoint
ALTER TABLE "work_order_counts" ADD COLUMN "kind" text;--> statement-breakpoint
UPDATE "work_order_counts" SET "kind" = regexp_replace("key", '_\d+$', '')
  WHERE regexp_replace("key", '_\d+$', '') IN ('tools','screws','hoses','rags','gaskets');--> statement-breakpoint
-- Why a part came out: by a work order it was planned; a tagged part that sits elsewhere since that day was swapped.
ALTER TABLE "fitted_components" ADD COLUMN "removal_reason" text;--> statement-breakpoint
UPDATE "fitted_components" f SET "removal_reason" = CASE
  WHEN "removed_by_work_order_id" IS NOT NULL THEN 'planned'
  WHEN "tag" IS NOT NULL AND EXISTS (SELECT FROM "fitted_components" n WHERE n."fleet_id" = f."fleet_id" AND n."tag" = f."tag" AND n."id" <> f."id" AND n."installed_on" = f."removed_on") THEN 'swap'
  ELSE 'unknown' END
  WHERE "removed_on" IS NOT NULL;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD CONSTRAINT "fitted_components_removed_for_a_reason" CHECK (("fitted_components"."removed_on" is null) = ("fitted_components"."removal_reason" is null));
