CREATE TABLE "unsettled_groups" (
	"fleet_id" uuid NOT NULL,
	"duty_group" text NOT NULL,
	CONSTRAINT "unsettled_groups_fleet_id_duty_group_pk" PRIMARY KEY("fleet_id","duty_group")
);
