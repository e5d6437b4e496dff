import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import type { Entity } from '../ledger/change.js';
import { readWhole } from '../files/files.repo.js';
import { isAsLeft, ledgerEntities } from '../ledger/entities.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';

/** One thing that was looked at: how many of it, and what is wrong with it. */
export interface Finding {
  what: string;
  looked: number;
  faults: string[];
}

const PART = 500;
const MOST_FAULTS = 20;

/**
 * Reads everything that a database holds and says what is sound: every page and index, every row of the ledger against the last change that
 * tells of it, the numbers of changes, and every stored file against its hash. Changes nothing.
 */
export async function verifyDatabase(db: Database): Promise<Finding[]> {
  const findings: Finding[] = [await readTables(db), await readIndexes(db)];
  if (findings.some((one) => one.faults.length > 0)) return findings;
  return [...findings, await countChanges(db), ...(await foldLedger(db)), await hashFiles(db)];
}

async function names(db: Database, query: ReturnType<typeof sql>): Promise<string[]> {
  return (await db.execute<{ name: string }>(query)).rows.map((row) => row.name);
}

const reason = (error: unknown) => ((error as Error).cause as Error | undefined)?.message ?? (error as Error).message;

/** Every column of every row, so that every page and every value kept apart from its row is read. */
async function readTables(db: Database): Promise<Finding> {
  const tables = await names(db, sql`select table_name as name from information_schema.tables where table_schema = 'public' order by 1`);
  const finding: Finding = { what: 'tables', looked: tables.length, faults: [] };
  for (const table of tables)
    try {
      await db.execute(sql`select sum(length(one::text)) from ${sql.identifier(table)} one`);
    } catch (error) {
      finding.faults.push(`table ${table}: ${reason(error)}`);
    }
  return finding;
}

async function readIndexes(db: Database): Promise<Finding> {
  await db.execute(sql`create extension if not exists amcheck`);
  const indexes = await names(
    db,
    sql`select c.oid::regclass::text as name from pg_index i join pg_class c on c.oid = i.indexrelid join pg_am a on a.oid = c.relam
      join pg_namespace n on n.oid = c.relnamespace where a.amname = 'btree' and n.nspname = 'public' order by 1`,
  );
  const finding: Finding = { what: 'indexes', looked: indexes.length, faults: [] };
  for (const index of indexes)
    try {
      await db.execute(sql`select bt_index_check(${index}::regclass, true)`);
    } catch (error) {
      finding.faults.push(`index ${index}: ${reason(error)}`);
    }
  return finding;
}

/** Numbers of changes go up by one in each project, and every change has as many rows as it says. */
async function countChanges(db: Database): Promise<Finding> {
  const { rows } = await db.execute<{ looked: number }>(sql`select count(*)::int as looked from batch`);
  const { rows: gaps } = await db.execute<{ name: string; seq: number; last: number; counted: number }>(sql`
    select project.name, project.seq, coalesce(max(batch.seq), 0) as last, count(batch.id)::int as counted
    from project left join batch on batch.project_id = project.id group by project.id
    having project.seq <> coalesce(max(batch.seq), 0) or count(batch.id) <> project.seq`);
  const { rows: sizes } = await db.execute<{ seq: number; size: number; held: number }>(sql`
    select batch.seq, batch.size, count(history.ordinal)::int as held from batch
      left join history on history.project_id = batch.project_id and history.seq = batch.seq
    group by batch.id having batch.size <> count(history.ordinal) limit ${MOST_FAULTS}`);
  return {
    what: 'changes',
    looked: rows[0]!.looked,
    faults: [
      ...gaps.map(({ name, seq, last, counted }) => `"${name}" stands at change ${seq}, but ${counted} changes up to ${last} are stored`),
      ...sizes.map(({ seq, size, held }) => `change ${seq} says ${size} rows and holds ${held}`),
    ],
  };
}

/** Each row as it stands must be what the last change of it left. */
async function foldLedger(db: Database): Promise<Finding[]> {
  const repo = new LedgerRepo(db);
  const findings: Finding[] = [];
  for (const entity of Object.keys(ledgerEntities) as Entity[]) {
    const finding: Finding = { what: `rows of the ledger: ${entity}`, looked: 0, faults: [] };
    let after = '00000000-0000-0000-0000-000000000000';
    for (;;) {
      const { rows } = await db.execute<{ id: string }>(sql`select id from ${ledgerEntities[entity].table} where id > ${after} order by id limit ${PART}`);
      if (rows.length === 0) break;
      const ids = rows.map((row) => row.id);
      after = ids.at(-1)!;
      const present = await repo.findRows(entity, ids);
      const last = await repo.findLast(entity, ids);
      for (const id of ids) {
        finding.looked++;
        const left = last.get(id);
        if (!left) finding.faults.push(`${entity} ${id}: no change tells of it`);
        else if (!isAsLeft(entity, left, present.get(id)!))
          finding.faults.push(`${entity} ${'reference' in left ? left.reference : id}: it is not what its last change left`);
      }
    }
    findings.push({ ...finding, faults: finding.faults.slice(0, MOST_FAULTS) });
  }
  return findings;
}

async function hashFiles(db: Database): Promise<Finding> {
  const { rows } = await db.execute<{ id: string; name: string; sha256: string | null }>(sql`select id, name, sha256 from file order by id`);
  const finding: Finding = { what: 'stored files', looked: rows.length, faults: [] };
  for (const { id, name, sha256 } of rows) {
    const { rows: found } = await db.execute<{ bytes: string; parts: number }>(sql`select encode(bytes, 'base64') as bytes, parts from file where id = ${id}`);
    const { bytes, parts } = found[0]!;
    const whole = await readWhole(db, { id, parts, bytes: Buffer.from(bytes, 'base64') }).catch(() => undefined);
    const hash = whole && createHash('sha256').update(whole).digest('hex');
    if (hash !== sha256) finding.faults.push(`${name}: its bytes are not those that came in`);
  }
  return finding;
}
