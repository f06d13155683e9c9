CREATE TABLE "back_tests" (
	"fleet_id" uuid NOT NULL,
	"duty_group" text NOT NULL,
	"drift" double precision NOT NULL,
	"scale" double precision NOT NULL,
	"forecasts" integer NOT NULL,
	"held" integer NOT NULL,
	CONSTRAINT "back_tests_fleet_id_duty_group_pk" PRIMARY KEY("fleet_id","duty_group")
);
--> statement-breakpoint
ALTER TABLE "due_inputs" ADD COLUMN "rate_weekly_spread" double precision;--> statement-breakpoint
ALTER TABLE "due_inputs" ADD COLUMN "rate_observed_days" integer;--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "rate_low_km_per_day";--> statement-breakpoint
ALTER TABLE "due_inputs" DROP COLUMN "rate_high_km_per_day";--> statement-breakpoint
ALTER TABLE "due_status" DROP COLUMN "rate_low_km_per_day";--> statement-breakpoint
ALTER TABLE "due_status" DROP COLUMN "rate_high_km_per_day";--> statement-breakpoint
-- Rates of hour meters that were worked out before say nothing of how uneven weeks are: what is assumed.
UPDATE "due_inputs" SET "hour_meter" = jsonb_set("hour_meter", '{rate}', ("hour_meter"->'rate') || '{"weeklySpread": 0.4, "observedDays": 180, "groupSpread": 0}')
WHERE jsonb_typeof("hour_meter"->'rate') = 'object';
