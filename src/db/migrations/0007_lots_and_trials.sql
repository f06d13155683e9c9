CREATE TABLE "banned_sellers" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"name" text NOT NULL,
	"reason" text NOT NULL,
	"banned_by" uuid NOT NULL,
	"banned_on" date NOT NULL,
	"lifted_on" date
);
--> statement-breakpoint
CREATE TABLE "trials" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"part_id" uuid NOT NULL,
	"control_part_id" uuid NOT NULL,
	"why" text NOT NULL,
	"started_on" date NOT NULL,
	"review_on" date NOT NULL,
	"started_by" uuid NOT NULL,
	"ended_on" date,
	"outcome" text,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "trials_of_another" CHECK ("trials"."part_id" <> "trials"."control_part_id"),
	CONSTRAINT "trials_in_order" CHECK ("trials"."review_on" > "trials"."started_on" and num_nulls("trials"."ended_on", "trials"."outcome") in (0, 2))
);
--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "suspicion" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "lot" text;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "compound" text;--> statement-breakpoint
ALTER TABLE "fitted_components" ADD COLUMN "compound_batch" text;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD COLUMN "new_lot" text;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD COLUMN "compound" text;--> statement-breakpoint
ALTER TABLE "work_order_sites" ADD COLUMN "compound_batch" text;--> statement-breakpoint
ALTER TABLE "banned_sellers" ADD CONSTRAINT "banned_sellers_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trials" ADD CONSTRAINT "trials_fleet_id_fleets_id_fk" FOREIGN KEY ("fleet_id") REFERENCES "public"."fleets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trials" ADD CONSTRAINT "trials_fleet_id_part_id_parts_fleet_id_id_fk" FOREIGN KEY ("fleet_id","part_id") REFERENCES "public"."parts"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trials" ADD CONSTRAINT "trials_fleet_id_control_part_id_parts_fleet_id_id_fk" FOREIGN KEY ("fleet_id","control_part_id") REFERENCES "public"."parts"("fleet_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "banned_sellers_once" ON "banned_sellers" USING btree ("fleet_id",lower("name")) WHERE "banned_sellers"."lifted_on" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "trials_one_running" ON "trials" USING btree ("part_id") WHERE "trials"."ended_on" is null;--> statement-breakpoint
CREATE INDEX "fitted_components_fleet_id_part_id_lot_index" ON "fitted_components" USING btree ("fleet_id","part_id","lot");