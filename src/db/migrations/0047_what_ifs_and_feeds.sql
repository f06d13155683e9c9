CREATE TABLE "calendar_feeds" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"of" text NOT NULL,
	"of_id" uuid NOT NULL,
	"secret_sha256" text NOT NULL,
	"made_by" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "calendar_feeds_secretSha256_unique" UNIQUE("secret_sha256"),
	CONSTRAINT "calendar_feeds_fleetId_of_ofId_unique" UNIQUE("fleet_id","of","of_id"),
	CONSTRAINT "calendar_feeds_of_known" CHECK ("calendar_feeds"."of" in ('depot','bay','person'))
);
--> statement-breakpoint
ALTER TABLE "plan_proposals" ADD COLUMN "name" text;--> statement-breakpoint
ALTER TABLE "plan_proposals" ADD COLUMN "changes" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan_proposals" ADD COLUMN "adopted" jsonb;--> statement-breakpoint
ALTER TABLE "calendar_feeds" ADD CONSTRAINT "calendar_feeds_fleet_id_made_by_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","made_by") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- What was worked out before knows nothing of the hours of bays and people, so it cannot be shown: it is asked for anew.
UPDATE "plan_proposals" SET "state" = CASE WHEN "state" = 'done' THEN 'discarded' ELSE "state" END, "result" = null WHERE "result" IS NOT NULL AND NOT "result" ? 'bays';
