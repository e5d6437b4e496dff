ALTER TABLE "item" DROP COLUMN "external_id";--> statement-breakpoint
ALTER TABLE "item" DROP COLUMN "source_id";--> statement-breakpoint
ALTER TABLE "item" DROP COLUMN "place";--> statement-breakpoint
ALTER TABLE "item" DROP COLUMN "base";