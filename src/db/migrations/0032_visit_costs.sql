ALTER TABLE "fleets" ADD COLUMN "labour_per_hour" numeric(9, 2) DEFAULT 60 NOT NULL;--> statement-breakpoint
ALTER TABLE "fleets" ADD COLUMN "downtime_per_visit" numeric(9, 2) DEFAULT 150 NOT NULL;