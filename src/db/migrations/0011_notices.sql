CREATE TABLE "notice_reads" (
	"person_id" uuid NOT NULL,
	"notice_id" uuid NOT NULL,
	"fleet_id" uuid NOT NULL,
	"read_at" timestamp with time zone NOT NULL,
	CONSTRAINT "notice_reads_person_id_notice_id_pk" PRIMARY KEY("person_id","notice_id")
);
--> statement-breakpoint
CREATE TABLE "notices" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"about" text NOT NULL,
	"text" text NOT NULL,
	"noted_on" date NOT NULL,
	"noted_at" timestamp with time zone NOT NULL,
	CONSTRAINT "notices_fleetId_vehicleId_kind_about_unique" UNIQUE("fleet_id","vehicle_id","kind","about"),
	CONSTRAINT "notices_fleetId_id_unique" UNIQUE("fleet_id","id"),
	CONSTRAINT "notices_kind_known" CHECK ("notices"."kind" in ('due','soon','silent','suspect'))
);
--> statement-breakpoint
CREATE TABLE "saved_views" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"name" text NOT NULL,
	"query" text NOT NULL,
	CONSTRAINT "saved_views_personId_name_unique" UNIQUE("person_id","name")
);
--> statement-breakpoint
ALTER TABLE "notice_reads" ADD CONSTRAINT "notice_reads_fleet_id_notice_id_notices_fleet_id_id_fk" FOREIGN KEY ("fleet_id","notice_id") REFERENCES "public"."notices"("fleet_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notice_reads" ADD CONSTRAINT "notice_reads_fleet_id_person_id_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","person_id") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notices" ADD CONSTRAINT "notices_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "saved_views" ADD CONSTRAINT "saved_views_fleet_id_person_id_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","person_id") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "notices_fleet_id_noted_on_index" ON "notices" USING btree ("fleet_id","noted_on");