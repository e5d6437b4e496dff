ALTER TABLE "item" ADD COLUMN "bindings" jsonb;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "exchanged" jsonb;--> statement-breakpoint
UPDATE "item" SET "bindings" = CASE WHEN "source_id" IS NULL THEN '[]'::jsonb ELSE jsonb_build_array(jsonb_build_object('partner', "source_id", 'externalId', "external_id", 'tag', NULL)) END, "exchanged" = CASE WHEN "source_id" IS NULL THEN '{}'::jsonb ELSE jsonb_build_object("source_id"::text, jsonb_build_object('place', "place", 'base', "base")) END;--> statement-breakpoint
ALTER TABLE "item" ALTER COLUMN "bindings" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "item" ALTER COLUMN "exchanged" SET NOT NULL;
