CREATE EXTENSION IF NOT EXISTS btree_gist;
--> statement-breakpoint
ALTER TABLE "bookings" ADD CONSTRAINT "bookings_bay_free" EXCLUDE USING gist ("bay_id" WITH =, "during" WITH &&);
--> statement-breakpoint
ALTER TABLE "bookings" ADD CONSTRAINT "bookings_person_free" EXCLUDE USING gist ("person_id" WITH =, "during" WITH &&);
--> statement-breakpoint
ALTER TABLE "bookings" ADD CONSTRAINT "bookings_some_time" CHECK (NOT isempty("during") AND NOT lower_inf("during") AND NOT upper_inf("during"));
--> statement-breakpoint
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is append-only', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$;
--> statement-breakpoint
CREATE TRIGGER audit_trail_append_only BEFORE UPDATE OR DELETE ON "audit_trail" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER audit_trail_no_truncate BEFORE TRUNCATE ON "audit_trail" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER spec_sheets_unchanging BEFORE UPDATE OR DELETE ON "spec_sheets" FOR EACH ROW EXECUTE FUNCTION refuse_change();
