ALTER TABLE "imports" DROP CONSTRAINT "imports_state_known";--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "in_background" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "plan" jsonb;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "refused_rows" text;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "problem" text;--> statement-breakpoint
ALTER TABLE "imports" ADD CONSTRAINT "imports_state_known" CHECK ("imports"."state" in ('checking','checked','applying','applied','discarded'));