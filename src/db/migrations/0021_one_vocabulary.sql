ALTER TABLE "standings" RENAME TO "due_status";
--> statement-breakpoint
ALTER TABLE "weighings" RENAME TO "due_runs";
--> statement-breakpoint
ALTER TABLE "vehicle_status" RENAME TO "due_inputs";
--> statement-breakpoint
ALTER TABLE "unsettled_groups" RENAME TO "stale_groups";
--> statement-breakpoint
ALTER TABLE "due_runs" RENAME COLUMN "weighed_on" TO "ran_on";
--> statement-breakpoint
ALTER TABLE "due_status" RENAME COLUMN "leans_on_group" TO "borrows_group_rate";
--> statement-breakpoint
ALTER TABLE "vehicles" RENAME COLUMN "settled_sheet_id" TO "chosen_sheet_id";
--> statement-breakpoint
ALTER TABLE "policy_choices" RENAME COLUMN "school" TO "option";
--> statement-breakpoint
ALTER TABLE "deliveries" RENAME COLUMN "settled" TO "resolved";
--> statement-breakpoint
ALTER TABLE "deliveries" RENAME COLUMN "settled_reason" TO "resolved_reason";
--> statement-breakpoint
ALTER TABLE "deliveries" RENAME COLUMN "settled_by" TO "resolved_by";
--> statement-breakpoint
ALTER TABLE "odometer_readings" RENAME COLUMN "settled" TO "resolved";
--> statement-breakpoint
ALTER TABLE "odometer_readings" RENAME COLUMN "settled_reason" TO "resolved_reason";
--> statement-breakpoint
ALTER TABLE "odometer_readings" RENAME COLUMN "settled_by" TO "resolved_by";
--> statement-breakpoint
ALTER TABLE "odometer_readings" RENAME COLUMN "settled_at" TO "resolved_at";
--> statement-breakpoint
ALTER TABLE "engine_hour_readings" RENAME COLUMN "settled_by" TO "resolved_by";
--> statement-breakpoint
ALTER TABLE "engine_hour_readings" RENAME COLUMN "settled_at" TO "resolved_at";
--> statement-breakpoint
ALTER TABLE "deliveries" RENAME CONSTRAINT "deliveries_settled_whole" TO "deliveries_resolved_whole";
--> statement-breakpoint
ALTER TABLE "deliveries" RENAME CONSTRAINT "deliveries_settled_what_was_held" TO "deliveries_resolved_what_was_quarantined";
--> statement-breakpoint
ALTER INDEX "standings_leaning" RENAME TO "due_status_borrowing";
--> statement-breakpoint
-- What is named after a table follows it.
DO $$
DECLARE
  renamed record;
  item record;
BEGIN
  FOR renamed IN SELECT * FROM (VALUES ('standings', 'due_status'), ('weighings', 'due_runs'), ('vehicle_status', 'due_inputs'), ('unsettled_groups', 'stale_groups')) AS v (was, now) LOOP
    FOR item IN SELECT conname AS name FROM pg_constraint WHERE conrelid = renamed.now::regclass AND starts_with(conname, renamed.was || '_') LOOP
      EXECUTE format('ALTER TABLE %I RENAME CONSTRAINT %I TO %I', renamed.now, item.name, replace(item.name, renamed.was, renamed.now));
    END LOOP;
    FOR item IN SELECT c.relname AS name FROM pg_index i JOIN pg_class c ON c.oid = i.indexrelid WHERE i.indrelid = renamed.now::regclass AND starts_with(c.relname, renamed.was || '_') LOOP
      EXECUTE format('ALTER INDEX %I RENAME TO %I', item.name, replace(item.name, renamed.was, renamed.now));
    END LOOP;
  END LOOP;
END $$;
--> statement-breakpoint
UPDATE "floor_entries" SET "outcome" = 'resolved' WHERE "outcome" = 'settled';
--> statement-breakpoint
UPDATE "trainer_grades" SET "answer" = CASE "answer" WHEN 'well' THEN 'normal' ELSE "answer" END, "said" = CASE "said" WHEN 'well' THEN 'normal' ELSE "said" END WHERE 'well' IN ("answer", "said");
--> statement-breakpoint
UPDATE "deliveries" SET "reasons" = replace("reasons"::text, '"held_later"', '"quarantined_later"')::jsonb WHERE "reasons"::text LIKE '%"held_later"%';
