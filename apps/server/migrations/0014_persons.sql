CREATE TABLE "person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"name" text NOT NULL,
	"names" jsonb NOT NULL,
	"initials" text NOT NULL,
	"colour" text NOT NULL,
	"created_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
INSERT INTO "person" ("id", "revision", "name", "names", "initials", "colour", "created_at") SELECT gen_random_uuid(), 1, "name", '[]'::jsonb, upper(left("name", 1) || CASE WHEN "name" ~ '\s' THEN left(regexp_replace("name", '^.*\s', ''), 1) ELSE '' END), (ARRAY['moss', 'slate', 'heather', 'ochre', 'brick', 'teal', 'plum', 'sand'])[1 + (row_number() OVER (ORDER BY "first", "name") - 1) % 8], "first" FROM (SELECT min("person") AS "name", min("at") AS "first" FROM "batch" GROUP BY lower("person")) "known";--> statement-breakpoint
UPDATE "batch" SET "person" = "person"."id"::text FROM "person" WHERE lower("person"."name") = lower("batch"."person");
