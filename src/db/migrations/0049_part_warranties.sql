ALTER TABLE "parts" ADD COLUMN "warranty_months" integer;--> statement-breakpoint
ALTER TABLE "parts" ADD COLUMN "warranty_km" integer;--> statement-breakpoint
ALTER TABLE "parts" ADD CONSTRAINT "parts_warranty_possible" CHECK ("parts"."warranty_months" > 0 and "parts"."warranty_km" > 0);