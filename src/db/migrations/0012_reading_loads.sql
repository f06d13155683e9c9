CREATE TABLE "reading_loads" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"file_name" text NOT NULL,
	"started_by" uuid NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"state" text NOT NULL,
	"step" text NOT NULL,
	"rows_read" integer DEFAULT 0 NOT NULL,
	"rows_judged" integer DEFAULT 0 NOT NULL,
	"added" integer,
	"suspect" integer,
	"known" integer,
	"refused" integer,
	"refusals" jsonb,
	"message" text,
	"cancel_asked" boolean DEFAULT false NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
CREATE INDEX "reading_loads_fleet_id_started_at_index" ON "reading_loads" USING btree ("fleet_id","started_at");