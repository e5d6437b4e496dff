import { Inject, Injectable } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import type { Connection, Database } from '../database/database.js';
import { insertRows } from '../database/insert-rows.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { DrawingValue, SourceValue } from '../ledger/change.js';
import type { ResultRow } from '../runs/runs.repo.js';
import { LedgerReader } from '../ledger/ledger-reader.js';

@Injectable()
export class GatherRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  async insertResults(tx: Connection, rows: ResultRow[]): Promise<void> {
    await insertRows(tx, schema.results, rows);
  }

  async insertPlaces(tx: Connection, rows: (typeof schema.places.$inferInsert)[]): Promise<void> {
    await insertRows(tx, schema.places, rows);
  }

  findDrawings(collection: string): Promise<DrawingValue[]> {
    return this.db.select().from(schema.drawings).where(eq(schema.drawings.collectionId, collection));
  }

  /** Oldest first. */
  async listSources(project: string): Promise<SourceValue[]> {
    const rows = await this.rows.findAll(project, 'source');
    return rows.sort((a, b) => Date.parse(a.importedAt) - Date.parse(b.importedAt));
  }
}
