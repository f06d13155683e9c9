-- Answers kept for a repeated key are of the last minutes: those that name no person are let go.
DELETE FROM "idempotency_answers";--> statement-breakpoint
ALTER TABLE "idempotency_answers" DROP CONSTRAINT "idempotency_answers_fleetId_key_unique";--> statement-breakpoint
ALTER TABLE "idempotency_answers" ALTER COLUMN "answer" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "idempotency_answers" ADD COLUMN "person_id" uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "idempotency_answers" ADD COLUMN "endpoint" text NOT NULL;--> statement-breakpoint
ALTER TABLE "idempotency_answers" ADD COLUMN "body_sha256" text NOT NULL;--> statement-breakpoint
ALTER TABLE "idempotency_answers" ADD CONSTRAINT "idempotency_answers_once" UNIQUE("person_id","endpoint","key");