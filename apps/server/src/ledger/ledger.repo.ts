import { setImmediate } from 'node:timers/promises';
import { and, desc, eq, gt, inArray, isNotNull, isNull, lt, lte, not, or, type SQL, sql } from 'drizzle-orm';
import { Inject, Injectable } from '@nestjs/common';
import type { Connection, Database } from '../database/database.js';
import { insertRows, replaceById } from '../database/insert-rows.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { Change, Entities, Entity } from './change.js';
import { ledgerEntities, readValue, type Value, writeValue } from './entities.js';

/** As many rows as others may wait for. */
const CHUNK = 200;
const entities = Object.keys(ledgerEntities) as Entity[];

/** An entry of the history with the newest one before it, as the database gives them. */
interface Entry {
  project: string;
  seq: number;
  ordinal: number;
  entity: Entity;
  version: number;
  value: Value;
  versionBefore: number | null;
  valueBefore: Value | null;
}

/** Entries of the history as changes: what stood before is the newest older entry of the same thing. */
function entriesWhere(where: SQL, rest: SQL): SQL {
  return sql`
    select now.project_id as project, now.seq, now.ordinal, now.entity, now.version, now.value, before.version as "versionBefore", before.value as "valueBefore"
    from history now left join lateral (
      select version, value from history older
      where older.project_id = now.project_id and older.entity = now.entity and older.entity_id = now.entity_id and (older.seq, older.ordinal) < (now.seq, now.ordinal)
      order by older.seq desc, older.ordinal desc limit 1) before on true
    where ${where} ${rest}`;
}

function readEntry({ project, entity, version, value, versionBefore, valueBefore }: Entry): Change {
  const before = versionBefore === null ? null : readValue(entity, { version: versionBefore, value: valueBefore! }, project);
  return { entity, before, after: readValue(entity, { version, value }, project) } as Change;
}

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

  /** From here on a batch is valid, whose changes were written before. */
  async writeBatch(tx: Connection, batch: BatchRow): Promise<void> {
    await tx.insert(schema.batches).values(batch);
    await tx.update(schema.projects).set({ seq: batch.seq }).where(eq(schema.projects.id, batch.projectId));
  }

  /** Writes the rows of changes of a batch, and the changes themselves as its history from number `first` on. */
  async writeChanges(tx: Connection, { projectId, seq }: BatchRow, changes: readonly Change[], first: number): Promise<void> {
    for (const entity of entities) {
      const { table, keys } = ledgerEntities[entity];
      // Of a row that is changed twice, the last counts: one statement writes a row once.
      const rows = new Map(changes.flatMap((change) => (change.entity === entity ? [[change.after.id, change.after] as const] : [])));
      if (rows.size) await insertRows(tx, table, [...rows.values()], replaceById(table, keys));
    }
    const records = changes.map(({ entity, after }, index) => ({
      ...{ projectId, seq, ordinal: first + index, entity, entityId: after.id },
      ...writeValue(ledgerEntities[entity], after),
    }));
    await insertRows(tx, schema.history, records);
  }

  /** Rows by id, as they stand; ids that do not exist are left out. */
  async findRows<E extends Entity>(entity: E, ids: readonly string[], tx: Connection = this.db): Promise<Map<string, Entities[E]>> {
    const found = new Map<string, Entities[E]>();
    const table = ledgerEntities[entity].table as typeof schema.items;
    for (let at = 0; at < ids.length; at += CHUNK) {
      // The database answers without a pause: others must get their turn between the parts.
      if (at > 0) await setImmediate();
      // The table is that of the entity; `entities.ts` holds the two to each other.
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

  /** Batches by their numbers. */
  async findBatches(projectId: string, seqs: readonly number[]): Promise<Map<number, BatchRow>> {
    const { batches } = schema;
    if (seqs.length === 0) return new Map();
    const rows = await this.db
      .select()
      .from(batches)
      .where(and(eq(batches.projectId, projectId), inArray(batches.seq, [...seqs])));
    return new Map(rows.map((row) => [row.seq, row]));
  }

  /** Items that went to another collection up to a change, each with the one that it left and when; in the order of the moves. */
  async findItemMoves(projectId: string, upTo: number): Promise<{ id: string; from: string; at: string }[]> {
    const { rows } = await this.db.execute<{ id: string; from: string; at: string }>(sql`
      with several as (
        select entity_id from history where project_id = ${projectId} and entity = 'item' and seq <= ${upTo}
        group by entity_id having min(value ->> 'collectionId') <> max(value ->> 'collectionId')),
      stands as (
        select history.entity_id, history.seq, value ->> 'collectionId' as now,
          lag(value ->> 'collectionId') over (partition by history.entity_id order by history.seq, history.ordinal) as before
        from history join several on several.entity_id = history.entity_id
        where history.project_id = ${projectId} and history.entity = 'item' and history.seq <= ${upTo})
      select stands.entity_id as id, stands.before as "from", batch.at
      from stands join batch on batch.project_id = ${projectId} and batch.seq = stands.seq
      where stands.before is not null and stands.before <> stands.now order by stands.seq`);
    return rows;
  }

  /** Changes of a batch in order; all of them, or one page. */
  async findChanges(projectId: string, seq: number, page?: { offset: number; most: number }): Promise<Change[]> {
    const of = sql`now.project_id = ${projectId} and now.seq = ${seq}`;
    if (page) return (await this.readEntries(of, sql`order by now.ordinal offset ${page.offset} limit ${page.most}`)).map(readEntry);
    const changes: Change[] = [];
    for (let last = -1; ; ) {
      const part = await this.readEntries(sql`${of} and now.ordinal > ${last}`, sql`order by now.ordinal limit ${CHUNK}`);
      changes.push(...part.map(readEntry));
      if (part.length < CHUNK) return changes;
      last = part.at(-1)!.ordinal;
    }
  }

  /** What the newest change of each row left, by its id. */
  async findLast<E extends Entity>(entity: E, ids: readonly string[]): Promise<Map<string, Entities[E]>> {
    const { history } = schema;
    const rows = await this.db
      .selectDistinctOn([history.entityId])
      .from(history)
      .where(and(eq(history.entity, entity), inArray(history.entityId, [...ids])))
      .orderBy(history.entityId, desc(history.seq), desc(history.ordinal));
    return new Map(rows.map((row) => [row.entityId, readValue(entity, row, row.projectId) as Entities[E]]));
  }

  /** Changes of one thing up to a number, with the batches they belong to, newest first. */
  async findHistory(projectId: string, entity: Entity, id: string, upTo: number): Promise<{ batch: BatchRow; change: Change }[]> {
    const { batches } = schema;
    const where = sql`now.project_id = ${projectId} and now.entity = ${entity} and now.entity_id = ${id} and now.seq between 1 and ${upTo}`;
    const entries = await this.readEntries(where, sql`order by now.seq desc, now.ordinal desc`);
    const seqs = [...new Set(entries.map((entry) => entry.seq))];
    const rows = await this.db
      .select()
      .from(batches)
      .where(and(eq(batches.projectId, projectId), inArray(batches.seq, seqs)));
    const batchOf = new Map(rows.map((row) => [row.seq, row]));
    return entries.map((entry) => ({ batch: batchOf.get(entry.seq)!, change: readEntry(entry) }));
  }

  /** A thing as it was at one of its revisions, where the history tells of it. */
  async findRevision<E extends Entity>(projectId: string, entity: E, id: string, revision: number): Promise<Entities[E] | undefined> {
    const { history } = schema;
    const [row] = await this.db
      .select()
      .from(history)
      .where(
        and(eq(history.projectId, projectId), eq(history.entity, entity), eq(history.entityId, id), sql`(${history.value} ->> 'revision')::int = ${revision}`),
      )
      .orderBy(desc(history.seq), desc(history.ordinal))
      .limit(1);
    return row && (readValue(entity, row, projectId) as Entities[E]);
  }

  /** Which of some things others changed after a change, each with who did so last. */
  async findChangedByOthers(projectId: string, ids: readonly string[], after: number, who: Who): Promise<Map<string, string>> {
    if (ids.length === 0) return new Map();
    const { batches, history } = schema;
    const rows = await this.db
      .selectDistinctOn([history.entityId], { id: history.entityId, person: batches.person })
      .from(history)
      .innerJoin(batches, and(eq(batches.projectId, history.projectId), eq(batches.seq, history.seq)))
      .where(and(eq(history.projectId, projectId), gt(history.seq, after), inArray(history.entityId, [...ids]), not(isBy(who)!)))
      .orderBy(history.entityId, desc(history.seq));
    return new Map(rows.map(({ id, person }) => [id, person]));
  }

  /** Which of some items changed after a change: themselves, or a link at them. */
  async findTouched(projectId: string, after: number, items: readonly string[]): Promise<string[]> {
    const wanted = new Set(items);
    const { rows } = await this.db.execute<{ id: string; from: string | null; to: string | null }>(sql`
      select entity_id as id, value ->> 'fromId' as "from", value ->> 'toId' as "to" from history
      where project_id = ${projectId} and seq > ${after} and entity in ('item', 'link')`);
    const touched = new Set<string>();
    for (const row of rows) for (const id of row.from === null ? [row.id] : [row.from, row.to]) if (id !== null && wanted.has(id)) touched.add(id);
    return [...touched];
  }

  private async readEntries(where: SQL, rest: SQL): Promise<Entry[]> {
    // The columns are named in the query.
    return (await this.db.execute(entriesWhere(where, rest))).rows as unknown as Entry[];
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

  /** Which of the batches stood undone right after a change: those whose last undo or redo up to it was an undo. */
  async findUndoneAsOf(projectId: string, ids: readonly string[], seq: number): Promise<Set<string>> {
    const { batches } = schema;
    const rows = await this.db
      .selectDistinctOn([batches.target], { target: batches.target, kind: batches.kind })
      .from(batches)
      .where(and(eq(batches.projectId, projectId), inArray(batches.target, [...ids]), lte(batches.seq, seq)))
      .orderBy(batches.target, desc(batches.seq));
    return new Set(rows.flatMap(({ target, kind }) => (target !== null && kind === 'undo' ? [target] : [])));
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

  /** Every change after `seq`, in order. */
  async findChangesSince(projectId: string, seq: number): Promise<Change[]> {
    return (await this.readEntries(sql`now.project_id = ${projectId} and now.seq > ${seq}`, sql`order by now.seq, now.ordinal`)).map(readEntry);
  }
}
