CREATE TABLE "clipping" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"source_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"field" text NOT NULL,
	"block" integer NOT NULL,
	"start" integer NOT NULL,
	"end" integer NOT NULL,
	"quote" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "place" (
	"source_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"place" jsonb NOT NULL,
	CONSTRAINT "place_source_id_item_id_pk" PRIMARY KEY("source_id","item_id")
);
--> statement-breakpoint
CREATE TABLE "recipe" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"name" text NOT NULL,
	"reads" text NOT NULL,
	"body" jsonb NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"changed_by" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "base" jsonb;--> statement-breakpoint
ALTER TABLE "source" ADD COLUMN "lineage_id" uuid;--> statement-breakpoint
ALTER TABLE "source" ADD COLUMN "collection_id" uuid;--> statement-breakpoint
ALTER TABLE "source" ADD COLUMN "choices" jsonb;--> statement-breakpoint
ALTER TABLE "source" ADD COLUMN "recipe_id" text;--> statement-breakpoint
CREATE INDEX "clipping_source" ON "clipping" USING btree ("source_id");--> statement-breakpoint
CREATE INDEX "clipping_item" ON "clipping" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "place_item" ON "place" USING btree ("item_id");--> statement-breakpoint
UPDATE "source" SET "lineage_id" = "id", "collection_id" = (SELECT "collection_id" FROM "item" WHERE "item"."source_id" = "source"."id" LIMIT 1);
