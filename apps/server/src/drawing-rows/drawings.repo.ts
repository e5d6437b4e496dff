import type { DrawingSort } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import { DATABASE } from '../http/tokens.js';
import type { DrawingValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { StagedChanges } from '../ledger/staged-changes.js';

/** A drawing without what it shows. */
export type LightDrawing = Pick<DrawingValue, 'id' | 'itemId' | 'collectionId' | 'name'> & { sort: DrawingSort; shapes: number; routes: number; made: boolean };
/** Where an item is drawn: indices and ids of the shapes that show it. */
export type Shown = Pick<DrawingValue, 'id' | 'itemId' | 'name'> & { sort: DrawingSort; shapes: number[]; shapeIds: string[] };

@Injectable()
export class DrawingsRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(StagedChanges) private readonly staged: StagedChanges,
  ) {}

  /** Drawings of a project as whoever asks reads it, in no order. */
  async list(project: string): Promise<LightDrawing[]> {
    if (this.staged.momentOf(project) !== undefined) return (await this.rows.findAll(project, 'drawing')).map(asLight);
    const { rows } = await this.db.execute<LightDrawing & Record<string, unknown>>(sql`
      select id, item_id as "itemId", collection_id as "collectionId", name, body ->> 'sort' as sort,
        jsonb_array_length(body -> 'shapes')::int as shapes, jsonb_array_length(body -> 'routes')::int as routes, body ? 'made' as made
      from drawing where project_id = ${project} and not withdrawn`);
    return rows;
  }

  /** Names of a project's drawings with ids of the items that each shows, some of them twice. */
  async listShown(project: string): Promise<{ id: string; name: string; items: (string | null)[] }[]> {
    if (this.staged.momentOf(project) !== undefined)
      return (await this.rows.findAll(project, 'drawing')).map(({ id, name, body }) => ({ id, name, items: body.shapes.map(({ item }) => item) }));
    const { rows } = await this.db.execute<{ id: string; name: string; items: (string | null)[] }>(sql`
      select id, name, jsonb_path_query_array(body, '$.shapes[*].item') as items from drawing where project_id = ${project} and not withdrawn order by name`);
    return rows;
  }

  /** A drawing by its own id, or that of the item that it is. */
  async find(project: string, id: string): Promise<DrawingValue | undefined> {
    const own = (await this.rows.findRows(project, 'drawing', [id])).get(id);
    if (own && own.projectId === project) return own;
    const { rows } = await this.db.execute<{ id: string }>(sql`select id from drawing where project_id = ${project} and item_id = ${id}`);
    const ids = rows.map((row) => row.id);
    const found = [...(await this.rows.findRows(project, 'drawing', ids)).values()];
    return found.find((row) => !row.withdrawn) ?? found[0];
  }

  /** Drawings that show an item. */
  async findShowing(project: string, item: string): Promise<Shown[]> {
    if (this.staged.momentOf(project) !== undefined) {
      const all = await this.rows.findAll(project, 'drawing');
      return all
        .map((row) => {
          const shown = row.body.shapes.flatMap((shape, at) => (shape.item === item ? [{ at, id: shape.id }] : []));
          return { ...asLight(row), shapes: shown.map(({ at }) => at), shapeIds: shown.map(({ id }) => id) };
        })
        .filter(({ shapes }) => shapes.length > 0);
    }
    const { rows } = await this.db.execute<Shown & Record<string, unknown>>(sql`
      select id, item_id as "itemId", name, body ->> 'sort' as sort,
        (select json_agg(at - 1 order by at) from jsonb_array_elements(body -> 'shapes') with ordinality as shapes(shape, at) where shape ->> 'item' = ${item}) as shapes,
        (select json_agg(shape ->> 'id' order by at) from jsonb_array_elements(body -> 'shapes') with ordinality as shapes(shape, at) where shape ->> 'item' = ${item}) as "shapeIds"
      from drawing
      where project_id = ${project} and not withdrawn and jsonb_path_query_array(body, '$.shapes[*].item') @> ${JSON.stringify([item])}::jsonb`);
    return rows;
  }
}

function asLight({ id, itemId, collectionId, name, body }: DrawingValue): LightDrawing {
  return { id, itemId, collectionId, name, sort: body.sort, shapes: body.shapes.length, routes: body.routes.length, made: body.made !== undefined };
}
