CREATE TABLE "reading_load_pieces" (
	"load_id" uuid NOT NULL,
	"n" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "reading_load_pieces_load_id_n_pk" PRIMARY KEY("load_id","n")
);
--> statement-breakpoint
-- Fast, and a file of readings takes a quarter of its room.
ALTER TABLE "reading_load_pieces" ALTER COLUMN "bytes" SET COMPRESSION lz4;--> statement-breakpoint
-- Until now a load ended with the program that had it.
UPDATE "reading_loads" SET "state" = 'failed', "step" = 'stopped', "message" = 'Stopped with the program: nothing was written. Send the file again.' WHERE "state" = 'running';--> statement-breakpoint
ALTER TABLE "reading_load_pieces" ADD CONSTRAINT "reading_load_pieces_load_id_reading_loads_id_fk" FOREIGN KEY ("load_id") REFERENCES "public"."reading_loads"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading_loads" ADD CONSTRAINT "reading_loads_state_known" CHECK ("reading_loads"."state" in ('receiving','queued','running','done','failed','cancelled'));