ALTER TABLE "task_places" ADD COLUMN "wrench" text;--> statement-breakpoint
ALTER TABLE "task_places" ADD COLUMN "adapter" text;