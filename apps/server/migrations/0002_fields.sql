CREATE TABLE "field" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"name" text NOT NULL,
	"kinds" jsonb NOT NULL,
	"definition" jsonb NOT NULL
);
