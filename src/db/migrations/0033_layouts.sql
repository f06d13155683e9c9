ALTER TABLE "engine_families" ADD COLUMN "holes" jsonb;--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "connector_rail" boolean DEFAULT false NOT NULL;