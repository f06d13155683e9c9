CREATE TABLE "number_codes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"fleet_id" uuid NOT NULL,
	"maker" text NOT NULL,
	"place" integer NOT NULL,
	"attribute" text NOT NULL,
	"code" text NOT NULL,
	"value" text NOT NULL,
	"source" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "number_codes_fleetId_maker_place_code_unique" UNIQUE("fleet_id","maker","place","code"),
	CONSTRAINT "number_codes_place_possible" CHECK ("number_codes"."place" between 0 and 9 and ("number_codes"."place" = 0) = ("number_codes"."attribute" = 'base'))
);
