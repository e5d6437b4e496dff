CREATE TABLE "history" (
	"project_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"ordinal" integer NOT NULL,
	"entity" text NOT NULL,
	"entity_id" uuid NOT NULL,
	"version" smallint NOT NULL,
	"value" jsonb NOT NULL,
	CONSTRAINT "history_project_id_seq_ordinal_pk" PRIMARY KEY("project_id","seq","ordinal")
);
--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "node" integer;--> statement-breakpoint
UPDATE "item" SET "node" = "numbered"."node" FROM (SELECT "id", row_number() OVER (PARTITION BY "project_id" ORDER BY "id") - 1 AS "node" FROM "item") "numbered" WHERE "numbered"."id" = "item"."id";--> statement-breakpoint
ALTER TABLE "item" ALTER COLUMN "node" SET NOT NULL;--> statement-breakpoint
INSERT INTO "history" SELECT "batch"."project_id", "batch"."seq", "change"."ordinal", "change"."entity", "change"."entity_id", 1, "change"."after" - 'projectId' FROM "change" JOIN "batch" ON "batch"."id" = "change"."batch_id";--> statement-breakpoint
INSERT INTO "history" SELECT "project_id", 0, row_number() OVER (PARTITION BY "project_id" ORDER BY "entity_id") - 1, "entity", "entity_id", 1, "before" - 'projectId' FROM (SELECT DISTINCT ON ("change"."entity", "change"."entity_id") "batch"."project_id", "change"."entity", "change"."entity_id", "change"."before" FROM "change" JOIN "batch" ON "batch"."id" = "change"."batch_id" ORDER BY "change"."entity", "change"."entity_id", "batch"."seq", "change"."ordinal") "first" WHERE "before" IS NOT NULL AND "before" <> 'null'::jsonb;--> statement-breakpoint
CREATE INDEX "history_entity" ON "history" USING btree ("project_id","entity","entity_id","seq" DESC NULLS FIRST,"ordinal" DESC NULLS FIRST);--> statement-breakpoint
CREATE UNIQUE INDEX "item_node" ON "item" USING btree ("project_id","node");