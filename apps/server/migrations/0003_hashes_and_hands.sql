ALTER TABLE "batch" ADD COLUMN "hand" text;--> statement-breakpoint
ALTER TABLE "file" ADD COLUMN "sha256" text;--> statement-breakpoint
UPDATE "file" SET "sha256" = encode(sha256("bytes"), 'hex');