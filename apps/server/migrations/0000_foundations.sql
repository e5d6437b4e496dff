CREATE TABLE "batch" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person" text NOT NULL,
	"action" text NOT NULL,
	"kind" text NOT NULL,
	"target" uuid,
	"undone_seq" integer,
	"size" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "change" (
	"batch_id" uuid NOT NULL,
	"ordinal" integer NOT NULL,
	"entity" text NOT NULL,
	"entity_id" uuid NOT NULL,
	"before" jsonb,
	"after" jsonb NOT NULL,
	CONSTRAINT "change_batch_id_ordinal_pk" PRIMARY KEY("batch_id","ordinal")
);
--> statement-breakpoint
CREATE TABLE "collection" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"name" text NOT NULL,
	"holds" text NOT NULL,
	"prefix" text NOT NULL,
	"kind" text NOT NULL,
	"rank" double precision NOT NULL
);
--> statement-breakpoint
CREATE TABLE "drawing" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"collection_id" uuid NOT NULL,
	"name" text NOT NULL,
	"external_id" text NOT NULL,
	"body" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "file" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"name" text NOT NULL,
	"media_type" text NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "item" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"collection_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"reference" text NOT NULL,
	"title" text NOT NULL,
	"html" text NOT NULL,
	"fields" jsonb NOT NULL,
	"heading" boolean NOT NULL,
	"parent_id" uuid,
	"rank" double precision NOT NULL,
	"meaning_seq" integer NOT NULL,
	"origin" text NOT NULL,
	"external_id" text,
	"source_id" uuid,
	"place" jsonb,
	"created_at" timestamp with time zone NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"changed_by" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "link" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"kind" text NOT NULL,
	"from_id" uuid NOT NULL,
	"to_id" uuid NOT NULL,
	"from_usage" jsonb,
	"to_usage" jsonb,
	"fields" jsonb NOT NULL,
	"origin" text NOT NULL,
	"from_seq" integer NOT NULL,
	"to_seq" integer NOT NULL,
	"confirmed_by" text NOT NULL,
	"confirmed_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "project" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"scheme" jsonb NOT NULL,
	"seq" integer NOT NULL,
	"created_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "report" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"title" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person" text NOT NULL,
	"seq" integer NOT NULL,
	"body" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "result" (
	"run_id" uuid NOT NULL,
	"ordinal" integer NOT NULL,
	"test_id" uuid,
	"suite" text NOT NULL,
	"name" text NOT NULL,
	"outcome" text NOT NULL,
	"duration" double precision,
	"message" text NOT NULL,
	"reason" text,
	CONSTRAINT "result_run_id_ordinal_pk" PRIMARY KEY("run_id","ordinal")
);
--> statement-breakpoint
CREATE TABLE "run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"name" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"seq" integer NOT NULL,
	"source_id" uuid
);
--> statement-breakpoint
CREATE TABLE "source" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"name" text NOT NULL,
	"format" text NOT NULL,
	"media_type" text NOT NULL,
	"size" integer NOT NULL,
	"imported_at" timestamp with time zone NOT NULL,
	"imported_by" text NOT NULL,
	"recipe" jsonb,
	"issues" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "waiver" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"withdrawn" boolean NOT NULL,
	"item_id" uuid NOT NULL,
	"rule" text NOT NULL,
	"person" text NOT NULL,
	"reason" text NOT NULL,
	"until" text
);
--> statement-breakpoint
CREATE UNIQUE INDEX "batch_seq" ON "batch" USING btree ("project_id","seq");--> statement-breakpoint
CREATE INDEX "change_entity" ON "change" USING btree ("entity_id");--> statement-breakpoint
CREATE UNIQUE INDEX "item_reference" ON "item" USING btree ("project_id","reference");--> statement-breakpoint
CREATE INDEX "item_collection" ON "item" USING btree ("collection_id");--> statement-breakpoint
CREATE INDEX "link_project" ON "link" USING btree ("project_id");--> statement-breakpoint
CREATE INDEX "link_from" ON "link" USING btree ("from_id");--> statement-breakpoint
CREATE INDEX "link_to" ON "link" USING btree ("to_id");--> statement-breakpoint
CREATE INDEX "result_test" ON "result" USING btree ("test_id");--> statement-breakpoint
CREATE INDEX "source_project" ON "source" USING btree ("project_id");