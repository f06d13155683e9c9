ALTER TABLE "engine_families" ADD COLUMN "other_work" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "work_orders" ADD COLUMN "other_work" jsonb DEFAULT '[]'::jsonb NOT NULL;