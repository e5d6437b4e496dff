CREATE TABLE "collection_set" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"name" text NOT NULL,
	"rank" double precision NOT NULL
);
--> statement-breakpoint
ALTER TABLE "collection" ADD COLUMN "set_id" uuid;--> statement-breakpoint
ALTER TABLE "project" ADD COLUMN "archived" boolean DEFAULT false NOT NULL;