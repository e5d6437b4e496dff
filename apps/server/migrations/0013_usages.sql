CREATE TABLE "usage" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"item_id" uuid NOT NULL,
	"path" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "link" ALTER COLUMN "from_usage" SET DATA TYPE uuid USING NULL;--> statement-breakpoint
ALTER TABLE "link" ALTER COLUMN "to_usage" SET DATA TYPE uuid USING NULL;--> statement-breakpoint
ALTER TABLE "drawing" ADD COLUMN "item_id" uuid;--> statement-breakpoint
CREATE INDEX "usage_item" ON "usage" USING btree ("item_id");