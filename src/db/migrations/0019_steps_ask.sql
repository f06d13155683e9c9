-- What older orders had to write down becomes plain text to be written down.
UPDATE "work_order_steps" SET "asks" = (
  SELECT jsonb_agg(jsonb_build_object('key', 'note_' || place, 'what', what, 'kind', 'text') ORDER BY place)
  FROM unnest("record") WITH ORDINALITY AS told(what, place)
) WHERE cardinality("record") > 0;--> statement-breakpoint
ALTER TABLE "work_order_steps" DROP COLUMN "record";