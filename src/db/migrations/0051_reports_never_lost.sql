CREATE TABLE "unfiled_reports" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"unit_number" text NOT NULL,
	"driver" text NOT NULL,
	"report" jsonb NOT NULL,
	"why" text NOT NULL,
	"seen_at" timestamp with time zone,
	"seen_by" uuid,
	CONSTRAINT "unfiled_reports_seen_by_someone" CHECK (("unfiled_reports"."seen_at" is null) = ("unfiled_reports"."seen_by" is null))
);
--> statement-breakpoint
ALTER TABLE "follow_ups" DROP CONSTRAINT "follow_ups_done_by_someone";--> statement-breakpoint
ALTER TABLE "unfiled_reports" ADD CONSTRAINT "unfiled_reports_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "unfiled_reports" ADD CONSTRAINT "unfiled_reports_fleet_id_seen_by_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","seen_by") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "unfiled_reports_fleet_id_at_index" ON "unfiled_reports" USING btree ("fleet_id","at") WHERE "unfiled_reports"."seen_at" is null;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_done_by_someone" CHECK (("follow_ups"."done_at" is null) = ("follow_ups"."done_by" is null) or ("follow_ups"."done_at" is not null and "follow_ups"."misfire_case_id" is not null));