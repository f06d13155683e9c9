ALTER TABLE "work_order_steps" ADD COLUMN "phase" text;--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD COLUMN "why" text;--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD COLUMN "tools" text[];--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD COLUMN "consumables" text[];--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD COLUMN "record" text[];--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD COLUMN "minutes" integer;