-- Comes with PostgreSQL, and the owner of a database may add it.
CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE TABLE "due_counts" (
	"fleet_id" uuid NOT NULL,
	"depot" text NOT NULL,
	"duty_group" text NOT NULL,
	"state" text NOT NULL,
	"n" integer NOT NULL
);
--> statement-breakpoint
DROP INDEX "due_status_by_place";--> statement-breakpoint
CREATE INDEX "due_counts_of_fleet" ON "due_counts" USING btree ("fleet_id");--> statement-breakpoint
CREATE INDEX "vehicles_by_words" ON "vehicles" USING gin (lower("unit_number" || ' ' || "name") gin_trgm_ops);--> statement-breakpoint
ALTER TABLE "due_status" DROP COLUMN "search_key";--> statement-breakpoint
-- Each statement that changes due status adds what it changed of the counts. Rows are only added: nobody waits for anybody.
CREATE FUNCTION count_due_status() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF tg_op = 'INSERT' THEN
    INSERT INTO due_counts (fleet_id, depot, duty_group, state, n)
    SELECT fleet_id, depot, duty_group, state, count(*) FROM now_there GROUP BY 1, 2, 3, 4;
  ELSIF tg_op = 'DELETE' THEN
    INSERT INTO due_counts (fleet_id, depot, duty_group, state, n)
    SELECT fleet_id, depot, duty_group, state, -count(*) FROM was_there GROUP BY 1, 2, 3, 4;
  ELSE
    INSERT INTO due_counts (fleet_id, depot, duty_group, state, n)
    SELECT fleet_id, depot, duty_group, state, sum(n) FROM (
      SELECT fleet_id, depot, duty_group, state, 1 AS n FROM now_there
      UNION ALL
      SELECT fleet_id, depot, duty_group, state, -1 FROM was_there
    ) changes GROUP BY 1, 2, 3, 4 HAVING sum(n) <> 0;
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER due_status_added AFTER INSERT ON due_status
  REFERENCING NEW TABLE AS now_there FOR EACH STATEMENT EXECUTE FUNCTION count_due_status();--> statement-breakpoint
CREATE TRIGGER due_status_changed AFTER UPDATE ON due_status
  REFERENCING OLD TABLE AS was_there NEW TABLE AS now_there FOR EACH STATEMENT EXECUTE FUNCTION count_due_status();--> statement-breakpoint
CREATE TRIGGER due_status_removed AFTER DELETE ON due_status
  REFERENCING OLD TABLE AS was_there FOR EACH STATEMENT EXECUTE FUNCTION count_due_status();--> statement-breakpoint
INSERT INTO due_counts (fleet_id, depot, duty_group, state, n)
SELECT fleet_id, depot, duty_group, state, count(*) FROM due_status GROUP BY 1, 2, 3, 4;
