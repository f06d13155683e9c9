CREATE TABLE "finding_verdicts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"finding_key" text NOT NULL,
	"found" jsonb NOT NULL,
	"verdict" text NOT NULL,
	"instead_text" text,
	"reason" text,
	"said_by" uuid NOT NULL,
	"said_at" timestamp with time zone NOT NULL,
	CONSTRAINT "finding_verdicts_workOrderId_findingKey_unique" UNIQUE("work_order_id","finding_key")
);
--> statement-breakpoint
CREATE TABLE "follow_ups" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"finding_key" text,
	"what" text NOT NULL,
	"owner_id" uuid NOT NULL,
	"due_on" date,
	"due_km" numeric(9, 1),
	"due_km_as_typed" text,
	"created_by" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"done_at" timestamp with time zone,
	"done_by" uuid,
	"outcome" text,
	CONSTRAINT "follow_ups_done_by_someone" CHECK (("follow_ups"."done_at" is null) = ("follow_ups"."done_by" is null))
);
--> statement-breakpoint
ALTER TABLE "finding_verdicts" ADD CONSTRAINT "finding_verdicts_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_fleet_id_vehicle_id_vehicles_fleet_id_id_fk" FOREIGN KEY ("fleet_id","vehicle_id") REFERENCES "public"."vehicles"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_fleet_id_owner_id_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","owner_id") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "follow_ups_fleet_id_due_on_index" ON "follow_ups" USING btree ("fleet_id","due_on") WHERE "follow_ups"."done_at" is null;