import { createHash } from 'node:crypto';
import { CoombError } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { and, eq, getTableColumns, sql } from 'drizzle-orm';
import type { Connection, Database } from '../database/database.js';
import { insertRows } from '../database/insert-rows.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { DrawingRow, SourceRow } from '../ledger/change.js';

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
  constructor(@Inject(DATABASE) private readonly db: Database) {}

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

  async listSources(project: string): Promise<(SourceRow & { items: number })[]> {
    const rows = await this.db
      .select()
      .from(schema.sources)
      .where(and(eq(schema.sources.projectId, project), eq(schema.sources.withdrawn, false)))
      .orderBy(schema.sources.importedAt);
    const counts = await this.db.execute(
      sql`select source_id as id, count(*)::int as count from item where project_id = ${project} and not withdrawn and not heading and source_id is not null group by source_id`,
    );
    const countOf = new Map((counts.rows as { id: string; count: number }[]).map((row) => [row.id, row.count]));
    return rows.map((row) => ({ ...row, items: countOf.get(row.lineageId ?? row.id) ?? 0 }));
  }

  async listRuns(project: string): Promise<RunSummary[]> {
    const { rows } = await this.db.execute(sql`
      select run.id, run.name, run.at,
        json_build_object('passed', count(*) filter (where outcome = 'passed'), 'failed', count(*) filter (where outcome = 'failed'),
          'broken', count(*) filter (where outcome = 'broken'), 'skipped', count(*) filter (where outcome = 'skipped'),
          'unmatched', count(*) filter (where test_id is null)) as counts
      from run left join result on result.run_id = run.id
      where run.project_id = ${project} and not run.withdrawn group by run.id order by run.at desc, run.seq desc`);
    return rows as never;
  }

  async listResults(run: string): Promise<ResultRow[]> {
    return this.db.select().from(schema.results).where(eq(schema.results.runId, run)).orderBy(schema.results.ordinal);
  }
}
