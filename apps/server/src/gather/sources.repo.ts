import type { SourcePlace } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { ClippingValue, SourceValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';

@Injectable()
export class SourcesRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  /** Versions of one file that are not withdrawn, oldest first. */
  async findVersions(project: string, lineage: string): Promise<SourceValue[]> {
    const rows = (await this.rows.findAll(project, 'source')).filter((source) => source.lineageId === lineage);
    return rows.sort((a, b) => Date.parse(a.importedAt) - Date.parse(b.importedAt));
  }

  /** In the order of the text. */
  async findClippings(project: string, sources: readonly string[]): Promise<ClippingValue[]> {
    const rows = (await this.rows.findAll(project, 'clipping')).filter((clipping) => sources.includes(clipping.sourceId));
    return rows.sort((a, b) => a.block - b.block || a.start - b.start);
  }

  findPlaces(source: string): Promise<{ itemId: string; place: SourcePlace }[]> {
    const { places } = schema;
    return this.db.select({ itemId: places.itemId, place: places.place }).from(places).where(eq(places.sourceId, source));
  }

  /** Where items stood in the first version of their source, as their binding says. */
  async findFirstPlaces(project: string, lineage: string): Promise<{ itemId: string; place: SourcePlace }[]> {
    const { rows } = await this.db.execute<{ itemId: string; place: SourcePlace }>(sql`
      select id as "itemId", exchanged -> ${lineage}::text -> 'place' as place from item
      where project_id = ${project} and exchanged ? ${lineage}::text and jsonb_typeof(exchanged -> ${lineage}::text -> 'place') = 'object'`);
    return rows;
  }
}
