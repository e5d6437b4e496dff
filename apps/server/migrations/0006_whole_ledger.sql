ALTER TABLE "project" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "project" ADD COLUMN "withdrawn" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "report" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "report" ADD COLUMN "withdrawn" boolean DEFAULT false NOT NULL;--> statement-breakpoint
INSERT INTO "history" SELECT "id", 0, -1, 'project', "id", 1, jsonb_build_object('id', "id", 'revision', 1, 'withdrawn', false, 'name', "name") FROM "project";--> statement-breakpoint
INSERT INTO "history" SELECT "project_id", 0, -1 - row_number() OVER (PARTITION BY "project_id" ORDER BY "number"), 'report', "id", 1, jsonb_build_object('id', "id", 'revision', 1, 'withdrawn', false, 'number', "number", 'title', "title", 'at', "at", 'person', "person", 'seq', "seq") FROM "report";
