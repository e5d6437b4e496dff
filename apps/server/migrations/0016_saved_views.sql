CREATE TABLE "saved_view" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"sort" text NOT NULL,
	"name" text NOT NULL,
	"version" smallint NOT NULL,
	"body" jsonb NOT NULL,
	"person" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE INDEX "saved_view_project" ON "saved_view" USING btree ("project_id");