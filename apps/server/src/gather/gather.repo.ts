import { createHash } from 'node:crypto';
import { CoombError } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { and, eq, getTableColumns, sql } from 'drizzle-orm';
import type { Connection, Database } from '../database/database.js';
import { insertRows } from '../database/insert-rows.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { DrawingRow, SourceRow } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';

export type ResultRow = typeof schema.results.$inferSelect;
export type FileRow = typeof schema.files.$inferSelect;
export type NewFile = Omit<FileRow, 'sha256'>;

/** Bytes travel as base64 in both directions (see schema.ts). */
const fileColumns = {
  ...getTableColumns(schema.files),
  bytes: sql`encode(${schema.files.bytes}, 'base64')`.mapWith((text: string) => Buffer.from(text, 'base64')),
};

interface RunSummary {
  id: string;
  name: string;
  at: string;
  counts: { passed: number; failed: number; broken: number; skipped: number; unmatched: number };
}

@Injectable()
export class GatherRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  async insertFiles(tx: Connection, rows: readonly NewFile[]): Promise<void> {
    for (const row of rows) await tx.insert(schema.files).values({ ...row, sha256: createHash('sha256').update(row.bytes).digest('hex') });
  }

  async insertResults(tx: Connection, rows: ResultRow[]): Promise<void> {
    await insertRows(tx, schema.results, rows);
  }

  async insertPlaces(tx: Connection, rows: (typeof schema.places.$inferInsert)[]): Promise<void> {
    await insertRows(tx, schema.places, rows);
  }

  /** Pictures stored with any version of a source: id by the hash of their bytes. */
  async findPictures(project: string, lineage: string): Promise<Map<string, string>> {
    const { rows } = await this.db.execute(sql`
      select file.id, file.sha256 as hash from file join source on source.id = file.source_id
      where file.project_id = ${project} and source.lineage_id = ${lineage} and file.id <> file.source_id`);
    return new Map((rows as { id: string; hash: string }[]).map(({ id, hash }) => [hash, id]));
  }

  findDrawings(collection: string): Promise<DrawingRow[]> {
    return this.db.select().from(schema.drawings).where(eq(schema.drawings.collectionId, collection));
  }

  async getFile(project: string, id: string): Promise<FileRow> {
    const [row] = await this.db
      .select(fileColumns)
      .from(schema.files)
      .where(and(eq(schema.files.projectId, project), eq(schema.files.id, id)));
    if (!row) throw new CoombError('not-found', 'There is no such file.');
    return row;
  }

  async getOriginal(project: string, source: string): Promise<FileRow> {
    const [row] = await this.db
      .select(fileColumns)
      .from(schema.files)
      .where(and(eq(schema.files.projectId, project), eq(schema.files.sourceId, source), eq(schema.files.id, source)));
    if (!row) throw new CoombError('not-found', 'The original of this source is not stored.');
    return row;
  }

  /** Oldest first. */
  async listSources(project: string): Promise<SourceRow[]> {
    const rows = await this.rows.findAll(project, 'source');
    return rows.sort((a, b) => Date.parse(a.importedAt) - Date.parse(b.importedAt));
  }

  async listRuns(project: string): Promise<RunSummary[]> {
    const live = (await this.rows.findAll(project, 'run')).map(({ id }) => id);
    const { rows } = await this.db.execute(sql`
      select run.id, run.name, run.at,
        json_build_object('passed', count(*) filter (where outcome = 'passed'), 'failed', count(*) filter (where outcome = 'failed'),
          'broken', count(*) filter (where outcome = 'broken'), 'skipped', count(*) filter (where outcome = 'skipped'),
          'unmatched', count(*) filter (where test_id is null)) as counts
      from run left join result on result.run_id = run.id
      where run.id = any(${`{${live.join(',')}}`}::uuid[]) group by run.id order by run.at desc, run.seq desc`);
    return rows as never;
  }

  async listResults(run: string): Promise<ResultRow[]> {
    return this.db.select().from(schema.results).where(eq(schema.results.runId, run)).orderBy(schema.results.ordinal);
  }
}
