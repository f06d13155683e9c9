ALTER TABLE "spec_sheets" ADD COLUMN "entered_by_id" uuid;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "said_checked_by" text;--> statement-breakpoint
ALTER TABLE "spec_sheets" ADD COLUMN "torque_for" text;