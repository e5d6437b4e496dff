CREATE TABLE "file_part" (
	"file_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "file_part_file_id_number_pk" PRIMARY KEY("file_id","number")
);
--> statement-breakpoint
ALTER TABLE "file" ADD COLUMN "parts" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "item" ALTER COLUMN "html" SET STATISTICS 0, ALTER COLUMN "fields" SET STATISTICS 0, ALTER COLUMN "bindings" SET STATISTICS 0, ALTER COLUMN "exchanged" SET STATISTICS 0;
--> statement-breakpoint
ALTER TABLE "history" ALTER COLUMN "value" SET STATISTICS 0;
