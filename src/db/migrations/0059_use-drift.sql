ALTER TABLE "due_inputs" ADD COLUMN "rate_drift" double precision;--> statement-breakpoint
UPDATE "due_inputs" SET "hour_meter" = jsonb_set("hour_meter", '{rate,drift}', '0.018') WHERE jsonb_typeof("hour_meter"->'rate') = 'object';
