CREATE TABLE "errand" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"item_id" uuid NOT NULL,
	"link_id" uuid,
	"sort" text NOT NULL,
	"finding" text,
	"note" text NOT NULL,
	"owner" text NOT NULL,
	"giver" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"done" boolean NOT NULL
);
--> statement-breakpoint
CREATE TABLE "refusal" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"item_id" uuid NOT NULL,
	"other_id" uuid NOT NULL,
	"item_seq" integer NOT NULL,
	"other_seq" integer NOT NULL,
	"person" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "waiver" ADD COLUMN "finding" text;--> statement-breakpoint
ALTER TABLE "waiver" ADD COLUMN "approver" text;--> statement-breakpoint
CREATE INDEX "errand_project" ON "errand" USING btree ("project_id");--> statement-breakpoint
CREATE INDEX "refusal_project" ON "refusal" USING btree ("project_id");