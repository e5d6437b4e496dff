CREATE TABLE "baseline" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"name" text NOT NULL,
	"note" text NOT NULL,
	"seq" integer NOT NULL,
	"person" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE INDEX "baseline_project" ON "baseline" USING btree ("project_id");