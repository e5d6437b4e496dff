import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { and, eq, sql } from 'drizzle-orm';
import type { Connection, Database } from '../database/database.js';
import { insertRows } from '../database/insert-rows.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { DrawingValue, SourceValue, WaitingEndValue } from '../ledger/change.js';
import { baseName } from '../link-rows/link-ends.js';
import type { ResultRow } from '../runs/runs.repo.js';
import { LedgerReader } from '../ledger/ledger-reader.js';

/** As many places as others may wait for. */
const AT_ONCE = 1000;
/** Places in sources that are not there. */
const LOOSE = sql`not exists (select 1 from source where source.id = place.source_id)`;

@Injectable()
export class GatherRepo implements OnApplicationBootstrap {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  async insertResults(tx: Connection, rows: ResultRow[]): Promise<void> {
    await insertRows(tx, schema.results, rows);
  }

  /** Where the items of a version of a source stand in it, ahead of the source itself: nobody reads them before it is there. */
  async writePlaces(rows: (typeof schema.places.$inferInsert)[]): Promise<void> {
    for (let at = 0; at < rows.length; at += AT_ONCE) await insertRows(this.db, schema.places, rows.slice(at, at + AT_ONCE));
  }

  /** Takes back what was written ahead of a source that was not to be. */
  async dropPlaces(source: string): Promise<void> {
    await this.db.delete(schema.places).where(and(eq(schema.places.sourceId, source), LOOSE));
  }

  /** What a server wrote ahead of a source and then stopped. */
  async onApplicationBootstrap(): Promise<void> {
    await this.db.delete(schema.places).where(LOOSE);
  }

  findWaitingEnds(project: string): Promise<WaitingEndValue[]> {
    return this.rows.findAll(project, 'waitingEnd');
  }

  /** Names of the files of each line of versions, and of a new one. */
  async findFileNames(project: string, partner: string, name: string): Promise<Map<string, Set<string>>> {
    const { sources } = schema;
    const known = await this.db
      .select({ id: sources.id, lineage: sources.lineageId, name: sources.name })
      .from(sources)
      .where(and(eq(sources.projectId, project), eq(sources.withdrawn, false)));
    const names = new Map<string, Set<string>>();
    for (const one of [...known, { id: partner, lineage: partner, name }]) {
      const of = one.lineage ?? one.id;
      names.set(of, (names.get(of) ?? new Set()).add(baseName(one.name)));
    }
    return names;
  }

  /** Those that came from a model; what was made here is no business of files. */
  async findDrawings(collection: string): Promise<DrawingValue[]> {
    const rows = await this.db.select().from(schema.drawings).where(eq(schema.drawings.collectionId, collection));
    return rows.filter(({ body }) => !body.made);
  }

  /** Oldest first. */
  async listSources(project: string): Promise<SourceValue[]> {
    const rows = await this.rows.findAll(project, 'source');
    return rows.sort((a, b) => Date.parse(a.importedAt) - Date.parse(b.importedAt));
  }
}
