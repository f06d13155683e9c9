ALTER TABLE "engine_families" ADD COLUMN "boost_bands" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "boost_source" text;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "compound_place" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "method" text;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "intake_kpa" integer;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "distributor" jsonb;--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_intake_possible" CHECK ("vehicles"."intake_kpa" between 50 and 500);