CREATE TABLE "waiting_end" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"item_id" uuid NOT NULL,
	"link_kinds" jsonb NOT NULL,
	"reversed" boolean NOT NULL,
	"target" text NOT NULL,
	"partner" uuid NOT NULL
);
--> statement-breakpoint
CREATE INDEX "waiting_end_project" ON "waiting_end" USING btree ("project_id");