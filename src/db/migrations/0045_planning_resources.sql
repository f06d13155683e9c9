CREATE TABLE "absences" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"of" text NOT NULL,
	"of_id" uuid NOT NULL,
	"what" text NOT NULL,
	"from_day" date NOT NULL,
	"to_day" date NOT NULL,
	"from_min" integer,
	"to_min" integer,
	"rule" text,
	"except" date[] DEFAULT '{}' NOT NULL,
	"uid" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "absences_of_known" CHECK ("absences"."of" in ('depot','bay','person','vehicle')),
	CONSTRAINT "absences_days_in_order" CHECK ("absences"."from_day" <= "absences"."to_day"),
	CONSTRAINT "absences_hours_whole" CHECK (num_nulls("absences"."from_min", "absences"."to_min") in (0, 2) and "absences"."from_min" < "absences"."to_min")
);
--> statement-breakpoint
ALTER TABLE "bays" ADD COLUMN "can" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "bays" ADD COLUMN "hours" jsonb;--> statement-breakpoint
ALTER TABLE "bays" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "depots" ADD COLUMN "delivery_days" integer[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "fleets" ADD COLUMN "hour_cost" integer DEFAULT 15 NOT NULL;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "depot_ids" uuid[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "skills" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "hours" jsonb;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "sleeps_at_bay" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "hour_cost" integer;--> statement-breakpoint
ALTER TABLE "bookings" ADD COLUMN "pinned" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "absences" ADD CONSTRAINT "absences_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "absences_fleet_id_of_of_id_index" ON "absences" USING btree ("fleet_id","of","of_id");--> statement-breakpoint
ALTER TABLE "depots" ADD CONSTRAINT "depots_delivery_days" CHECK ("depots"."delivery_days" <@ array[1,2,3,4,5,6,7]);--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_hour_cost_possible" CHECK ("vehicles"."hour_cost" >= 0);