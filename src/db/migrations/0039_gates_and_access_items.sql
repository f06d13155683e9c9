CREATE TABLE "gate_lifts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"work_order_id" uuid NOT NULL,
	"gate" text NOT NULL,
	"target" text,
	"reason" text NOT NULL,
	"lifted_by" uuid NOT NULL,
	"lifted_at" timestamp with time zone NOT NULL,
	CONSTRAINT "gate_lifts_workOrderId_gate_target_unique" UNIQUE NULLS NOT DISTINCT("work_order_id","gate","target"),
	CONSTRAINT "gate_lifts_have_reason" CHECK (length("gate_lifts"."reason") >= 3)
);
--> statement-breakpoint
ALTER TABLE "engine_families" ADD COLUMN "access_items" jsonb;--> statement-breakpoint
ALTER TABLE "vehicles" ADD COLUMN "options" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "work_orders" ADD COLUMN "computed_minutes" integer;--> statement-breakpoint
ALTER TABLE "work_orders" ADD COLUMN "ways" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "task_places" ADD COLUMN "hole" text;--> statement-breakpoint
ALTER TABLE "task_places" ADD COLUMN "dropped" text;--> statement-breakpoint
ALTER TABLE "task_places" ADD COLUMN "start" text;--> statement-breakpoint
ALTER TABLE "gate_lifts" ADD CONSTRAINT "gate_lifts_fleet_id_work_order_id_work_orders_fleet_id_id_fk" FOREIGN KEY ("fleet_id","work_order_id") REFERENCES "public"."work_orders"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gate_lifts" ADD CONSTRAINT "gate_lifts_fleet_id_lifted_by_people_fleet_id_id_fk" FOREIGN KEY ("fleet_id","lifted_by") REFERENCES "public"."people"("fleet_id","id") ON DELETE no action ON UPDATE no action;