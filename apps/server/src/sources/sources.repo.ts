import type { SourcePlace } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { and, eq, inArray, isNotNull } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { ClippingRow } from '../ledger/change.js';

@Injectable()
export class SourcesRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** Versions of one file that are not withdrawn, oldest first. */
  findVersions(project: string, lineage: string): Promise<{ id: string; name: string; importedAt: string }[]> {
    const { sources } = schema;
    return this.db
      .select({ id: sources.id, name: sources.name, importedAt: sources.importedAt })
      .from(sources)
      .where(and(eq(sources.projectId, project), eq(sources.lineageId, lineage), eq(sources.withdrawn, false)))
      .orderBy(sources.importedAt);
  }

  findClippings(sources: readonly string[]): Promise<ClippingRow[]> {
    const { clippings } = schema;
    return this.db
      .select()
      .from(clippings)
      .where(and(inArray(clippings.sourceId, [...sources]), eq(clippings.withdrawn, false)))
      .orderBy(clippings.block, clippings.start);
  }

  findPlaces(source: string): Promise<{ itemId: string; place: SourcePlace }[]> {
    const { places } = schema;
    return this.db.select({ itemId: places.itemId, place: places.place }).from(places).where(eq(places.sourceId, source));
  }

  async findFirstPlaces(lineage: string): Promise<{ itemId: string; place: SourcePlace }[]> {
    const { items } = schema;
    const rows = await this.db
      .select({ itemId: items.id, place: items.place })
      .from(items)
      .where(and(eq(items.sourceId, lineage), isNotNull(items.place)));
    return rows.flatMap(({ itemId, place }) => (place ? [{ itemId, place }] : []));
  }
}
