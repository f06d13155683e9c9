ALTER TABLE "deliveries" DROP CONSTRAINT "deliveries_counts_possible";--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "set_aside" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_counts_possible" CHECK ("deliveries"."ordered_quantity" > 0 and "deliveries"."set_aside" >= 0 and "deliveries"."quantity" >= "deliveries"."set_aside");