CREATE TABLE "floor_entries" (
	"id" uuid PRIMARY KEY NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"target" text NOT NULL,
	"field" text NOT NULL,
	"value" jsonb,
	"base" jsonb,
	"outcome" text NOT NULL,
	"message" text,
	"entered_by" uuid NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "floor_photos" (
	"id" uuid PRIMARY KEY NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"target" text NOT NULL,
	"mime" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"taken_by" uuid NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	CONSTRAINT "floor_photos_not_large" CHECK (octet_length("floor_photos"."bytes") <= 1500000)
);
--> statement-breakpoint
CREATE TABLE "trainer_grades" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"plug" integer NOT NULL,
	"answer" text NOT NULL,
	"said" text NOT NULL,
	"said_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "work_order_codes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"moment" text NOT NULL,
	"codes" jsonb NOT NULL,
	"source" text NOT NULL,
	"read_by" uuid NOT NULL,
	"read_at" timestamp with time zone NOT NULL,
	"cleared_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "work_order_counts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"key" text NOT NULL,
	"what" text NOT NULL,
	"expected" integer,
	"out_step" text NOT NULL,
	"back_step" text NOT NULL,
	"out" integer,
	"back" integer,
	CONSTRAINT "work_order_counts_workOrderId_key_unique" UNIQUE("work_order_id","key"),
	CONSTRAINT "work_order_counts_possible" CHECK ("work_order_counts"."out" between 0 and 200 and "work_order_counts"."back" between 0 and 200)
);
--> statement-breakpoint
CREATE TABLE "work_order_waits" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"site" text,
	"reason" text NOT NULL,
	"part_number" text,
	"part_what" text,
	"quantity" integer,
	"said_by" uuid NOT NULL,
	"said_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "work_order_waits_whole" CHECK (("work_order_waits"."part_number" is null) = ("work_order_waits"."quantity" is null))
);
--> statement-breakpoint
CREATE TABLE "work_times" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"from_at" timestamp with time zone NOT NULL,
	"to_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD COLUMN "severities" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD COLUMN "curve" jsonb;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD COLUMN "soaked_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD COLUMN "released_reason" text;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD COLUMN "released_by" uuid;--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD COLUMN "asks" jsonb;--> statement-breakpoint
ALTER TABLE "work_order_steps" ADD COLUMN "answers" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "work_orders" ADD COLUMN "tray_first" text;--> statement-breakpoint
ALTER TABLE "work_orders" ADD COLUMN "handed_over_by" uuid;--> statement-breakpoint
ALTER TABLE "work_orders" ADD COLUMN "handed_over_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "work_orders" ADD COLUMN "minutes_worked" integer;--> statement-breakpoint
ALTER TABLE "floor_entries" ADD CONSTRAINT "floor_entries_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "floor_entries" ADD CONSTRAINT "floor_entries_fleet_id_entered_by_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","entered_by") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "floor_photos" ADD CONSTRAINT "floor_photos_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trainer_grades" ADD CONSTRAINT "trainer_grades_fleet_id_person_id_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","person_id") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_order_codes" ADD CONSTRAINT "work_order_codes_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_order_counts" ADD CONSTRAINT "work_order_counts_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_order_waits" ADD CONSTRAINT "work_order_waits_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_times" ADD CONSTRAINT "work_times_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_times" ADD CONSTRAINT "work_times_fleet_id_person_id_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","person_id") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "floor_entries_work_order_id_received_at_index" ON "floor_entries" USING btree ("work_order_id","received_at");--> statement-breakpoint
CREATE INDEX "floor_entries_open" ON "floor_entries" USING btree ("work_order_id") WHERE "floor_entries"."outcome" = 'differs';--> statement-breakpoint
CREATE INDEX "floor_photos_work_order_id_index" ON "floor_photos" USING btree ("work_order_id");--> statement-breakpoint
CREATE INDEX "trainer_grades_fleet_id_person_id_index" ON "trainer_grades" USING btree ("fleet_id","person_id");--> statement-breakpoint
CREATE INDEX "work_order_codes_work_order_id_index" ON "work_order_codes" USING btree ("work_order_id");--> statement-breakpoint
CREATE INDEX "work_order_waits_fleet_id_index" ON "work_order_waits" USING btree ("fleet_id") WHERE "work_order_waits"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "work_times_work_order_id_index" ON "work_times" USING btree ("work_order_id");