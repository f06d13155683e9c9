CREATE TABLE "plan_proposals" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"state" text DEFAULT 'queued' NOT NULL,
	"scope" jsonb NOT NULL,
	"progress" jsonb,
	"is_stopped" boolean DEFAULT false NOT NULL,
	"result" jsonb,
	"problem" text,
	"asked_by" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp with time zone,
	CONSTRAINT "plan_proposals_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "plan_proposals_state_known" CHECK ("plan_proposals"."state" in ('queued','running','done','failed','adopted','discarded'))
);
--> statement-breakpoint
ALTER TABLE "fleets" ADD COLUMN "move_cost" integer DEFAULT 20 NOT NULL;--> statement-breakpoint
ALTER TABLE "plan_proposals" ADD CONSTRAINT "plan_proposals_fleet_id_asked_by_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","asked_by") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "plan_proposals_fleet_id_created_at_index" ON "plan_proposals" USING btree ("fleet_id","created_at");