import { Inject, Injectable } from '@nestjs/common';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { SourcePlace } from '@coomb/core';
import type { ItemRow } from '../ledger/change.js';

@Injectable()
export class ItemsRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  async findMany(ids: readonly string[]): Promise<Map<string, ItemRow>> {
    if (ids.length === 0) return new Map();
    const rows = await this.db
      .select()
      .from(schema.items)
      .where(inArray(schema.items.id, [...ids]));
    return new Map(rows.map((row) => [row.id, row]));
  }

  /** The newest version of a source that has the item, and where it stands there; the first version where no later one notes it. */
  async findSource(lineage: string, item: string): Promise<{ id: string; name: string; place: SourcePlace | null } | undefined> {
    const { sources, places } = schema;
    const columns = { id: sources.id, name: sources.name };
    const [noted] = await this.db
      .select({ ...columns, place: places.place })
      .from(places)
      .innerJoin(sources, eq(sources.id, places.sourceId))
      .where(and(eq(places.itemId, item), eq(sources.lineageId, lineage), eq(sources.withdrawn, false)))
      .orderBy(desc(sources.importedAt))
      .limit(1);
    if (noted) return noted;
    const [first] = await this.db.select(columns).from(sources).where(eq(sources.id, lineage));
    return first && { ...first, place: null };
  }

  async findOrigins(links: readonly string[]): Promise<Map<string, string>> {
    if (links.length === 0) return new Map();
    const rows = await this.db
      .select({ id: schema.links.id, origin: schema.links.origin })
      .from(schema.links)
      .where(inArray(schema.links.id, [...links]));
    return new Map(rows.map((row) => [row.id, row.origin]));
  }

  /** Every result of the given tests in live runs, newest first. */
  findResults(tests: readonly string[]) {
    if (tests.length === 0) return Promise.resolve([]);
    const { results, runs } = schema;
    return this.db
      .select({ test: results.testId, outcome: results.outcome, at: runs.at, run: runs.name, message: results.message, duration: results.duration })
      .from(results)
      .innerJoin(runs, eq(runs.id, results.runId))
      .where(and(inArray(results.testId, [...tests]), eq(runs.withdrawn, false)))
      .orderBy(desc(runs.at), desc(runs.seq), asc(results.ordinal));
  }
}
