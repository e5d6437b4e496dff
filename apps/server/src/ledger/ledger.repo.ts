import { setImmediate } from 'node:timers/promises';
import { and, desc, eq, gt, inArray, isNotNull, isNull, lt, or } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import { Inject, Injectable } from '@nestjs/common';
import type { Connection, Database } from '../database/database.js';
import { insertRows, replaceById } from '../database/insert-rows.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { Change, Entities, Entity } from './change.js';

/** The table of each sort of row. */
export const ledgerTables: Record<Entity, PgTable> = {
  collection: schema.collections,
  source: schema.sources,
  item: schema.items,
  link: schema.links,
  drawing: schema.drawings,
  run: schema.runs,
  waiver: schema.waivers,
  recipe: schema.recipes,
  clipping: schema.clippings,
  field: schema.fields,
};
const CHUNK = 1000;

export type BatchRow = typeof schema.batches.$inferSelect;

/** Somebody whose actions undo takes back: by their hand, whatever their name is now; by name where no hand is known. */
export interface Who {
  person: string;
  hand: string | null;
}

function isBy({ person, hand }: Who) {
  const { batches } = schema;
  return hand === null ? eq(batches.person, person) : or(eq(batches.hand, hand), and(isNull(batches.hand), eq(batches.person, person)));
}

/** The SQL of the ledger: rows in, rows out, history. */
@Injectable()
export class LedgerRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  transaction<T>(work: (tx: Connection) => Promise<T>): Promise<T> {
    return this.db.transaction(work);
  }

  /** Writes the rows of changes and the changes themselves, in chunks; `step` is called after each with how many are done. */
  async write(tx: Connection, batch: BatchRow, changes: readonly Change[], step: (done: number) => Promise<void>): Promise<void> {
    await tx.insert(schema.batches).values(batch);
    await tx.update(schema.projects).set({ seq: batch.seq }).where(eq(schema.projects.id, batch.projectId));
    for (let at = 0; at < changes.length; at += CHUNK) {
      const chunk = changes.slice(at, at + CHUNK);
      for (const entity of Object.keys(ledgerTables) as Entity[]) {
        const rows = chunk.filter((change) => change.entity === entity).map((change) => change.after);
        if (rows.length) await insertRows(tx, ledgerTables[entity], rows, replaceById(ledgerTables[entity]));
      }
      const records = chunk.map(({ entity, before, after }, index) => ({ batchId: batch.id, ordinal: at + index, entity, entityId: after.id, before, after }));
      await insertRows(tx, schema.changes, records);
      await step(Math.min(changes.length, at + CHUNK));
    }
  }

  /** Rows by id, as they stand; ids that do not exist are left out. */
  async findRows<E extends Entity>(entity: E, ids: readonly string[], tx: Connection = this.db): Promise<Map<string, Entities[E]>> {
    const found = new Map<string, Entities[E]>();
    const table = ledgerTables[entity] as typeof schema.items;
    for (let at = 0; at < ids.length; at += CHUNK) {
      // The database answers without a pause: others must get their turn between the parts.
      if (at > 0) await setImmediate();
      const rows = (await tx
        .select()
        .from(table)
        .where(inArray(table.id, ids.slice(at, at + CHUNK)))) as unknown as Entities[E][];
      for (const row of rows) found.set(row.id, row);
    }
    return found;
  }

  async findBatch(projectId: string, seq: number): Promise<BatchRow | undefined> {
    const [row] = await this.db
      .select()
      .from(schema.batches)
      .where(and(eq(schema.batches.projectId, projectId), eq(schema.batches.seq, seq)));
    return row;
  }

  /** Changes of a batch in order; all of them, or one page. */
  async findChanges(batchId: string, page?: { offset: number; most: number }): Promise<Change[]> {
    const query = this.db.select().from(schema.changes).where(eq(schema.changes.batchId, batchId)).orderBy(schema.changes.ordinal).$dynamic();
    const rows = await (page ? query.offset(page.offset).limit(page.most) : query);
    return rows.map(({ entity, before, after }) => ({ entity, before, after }) as unknown as Change);
  }

  /** The newest change of each row, by its id. */
  async findLastChanges(entity: Entity, ids: readonly string[]): Promise<Map<string, Change>> {
    const { batches, changes } = schema;
    const rows = await this.db
      .selectDistinctOn([changes.entityId], { entityId: changes.entityId, before: changes.before, after: changes.after })
      .from(changes)
      .innerJoin(batches, eq(batches.id, changes.batchId))
      .where(and(eq(changes.entity, entity), inArray(changes.entityId, [...ids])))
      .orderBy(changes.entityId, desc(batches.seq), desc(changes.ordinal));
    return new Map(rows.map(({ entityId, before, after }) => [entityId, { entity, before, after } as unknown as Change]));
  }

  /** Changes of one row with the batches they belong to, newest first. */
  async findHistory(entityId: string): Promise<{ batch: BatchRow; change: Change }[]> {
    const rows = await this.db
      .select({ batch: schema.batches, entity: schema.changes.entity, before: schema.changes.before, after: schema.changes.after })
      .from(schema.changes)
      .innerJoin(schema.batches, eq(schema.batches.id, schema.changes.batchId))
      .where(eq(schema.changes.entityId, entityId))
      .orderBy(desc(schema.batches.seq));
    return rows.map(({ batch, entity, before, after }) => ({ batch, change: { entity, before, after } as unknown as Change }));
  }

  listBatches(projectId: string, before: number | undefined, most: number): Promise<BatchRow[]> {
    const { batches } = schema;
    return this.db
      .select()
      .from(batches)
      .where(and(eq(batches.projectId, projectId), before === undefined ? undefined : lt(batches.seq, before)))
      .orderBy(desc(batches.seq))
      .limit(most);
  }

  async findLastDone(projectId: string, who: Who): Promise<BatchRow | undefined> {
    const { batches } = schema;
    const [row] = await this.db
      .select()
      .from(batches)
      .where(and(eq(batches.projectId, projectId), isBy(who), eq(batches.kind, 'do'), isNull(batches.undoneSeq)))
      .orderBy(desc(batches.seq))
      .limit(1);
    return row;
  }

  /** The action taken back last, unless something was done since. */
  async findLastUndone(projectId: string, who: Who): Promise<{ done: BatchRow; undo: BatchRow } | undefined> {
    const { batches } = schema;
    const [done] = await this.db
      .select()
      .from(batches)
      .where(and(eq(batches.projectId, projectId), isBy(who), eq(batches.kind, 'do'), isNotNull(batches.undoneSeq)))
      .orderBy(desc(batches.undoneSeq))
      .limit(1);
    if (!done) return undefined;
    const [newer] = await this.db
      .select({ seq: batches.seq })
      .from(batches)
      .where(and(eq(batches.projectId, projectId), isBy(who), eq(batches.kind, 'do'), gt(batches.seq, done.undoneSeq!)))
      .limit(1);
    if (newer) return undefined;
    const [undo] = await this.db
      .select()
      .from(batches)
      .where(and(eq(batches.projectId, projectId), eq(batches.seq, done.undoneSeq!)))
      .limit(1);
    return undo && { done, undo };
  }

  async setUndone(tx: Connection, batchId: string, undoneSeq: number | null): Promise<void> {
    await tx.update(schema.batches).set({ undoneSeq }).where(eq(schema.batches.id, batchId));
  }

  /** Items touched by batches after `seq`, with their last action. */
  async findTouchedSince(
    projectId: string,
    seq: number,
  ): Promise<{ entity: Entity; before: Record<string, unknown> | null; after: Record<string, unknown>; action: string }[]> {
    const { batches, changes } = schema;
    const rows = await this.db
      .select({ entity: changes.entity, before: changes.before, after: changes.after, action: batches.action })
      .from(changes)
      .innerJoin(batches, eq(batches.id, changes.batchId))
      .where(and(eq(batches.projectId, projectId), gt(batches.seq, seq)))
      .orderBy(batches.seq, changes.ordinal);
    return rows as { entity: Entity; before: Record<string, unknown> | null; after: Record<string, unknown>; action: string }[];
  }
}
