ALTER TABLE "item" ADD COLUMN "details" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
CREATE INDEX "drawing_collection" ON "drawing" USING btree ("collection_id");--> statement-breakpoint
CREATE INDEX "drawing_item" ON "drawing" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "drawing_shows" ON "drawing" USING gin (jsonb_path_query_array("body", '$.shapes[*].item'));--> statement-breakpoint
ALTER TABLE "item" ALTER COLUMN "details" SET STATISTICS 0;--> statement-breakpoint
UPDATE "drawing" SET "body" = jsonb_build_object(
	'sort', 'other',
	'shapes', (SELECT coalesce(jsonb_agg(jsonb_build_object('id', (at - 1)::text, 'item', null, 'inside', -1, 'figure', 'box', 'name', '') || shape ORDER BY at), '[]'::jsonb) FROM jsonb_array_elements("body" -> 'shapes') WITH ORDINALITY AS shapes(shape, at)),
	'routes', (SELECT coalesce(jsonb_agg(jsonb_build_object('id', 'r' || (at - 1)::text, 'from', -1, 'to', -1, 'dashed', false, 'start', 'none', 'end', 'none', 'label', '') || route ORDER BY at), '[]'::jsonb) FROM jsonb_array_elements("body" -> 'routes') WITH ORDINALITY AS routes(route, at))
) WHERE NOT "body" ? 'sort';
