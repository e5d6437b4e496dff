import { Inject, Injectable } from '@nestjs/common';
import { and, asc, desc, eq, ilike, inArray, ne, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { SourcePlace } from '@coomb/core';
import type { ItemValue, LinkValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';

@Injectable()
export class ItemsRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  findMany(project: string, ids: readonly string[]): Promise<Map<string, ItemValue>> {
    return this.rows.findRows(project, 'item', ids);
  }

  /** Ids and texts, as HTML, of present items whose text may say some words: what stands between marks only is told apart by whoever asks. */
  async findSaying(project: string, words: string): Promise<{ id: string; html: string }[]> {
    const { items } = schema;
    // A word without what HTML writes otherwise; a text with marks in the middle of words has none of them here.
    const longest = words.split(/[\s&<>"'\u00A0]+/).reduce((most, one) => (one.length > most.length ? one : most), '');
    const bare = sql`regexp_replace(${items.html}, '<[^>]*>', '', 'g')`;
    return this.db
      .select({ id: items.id, html: items.html })
      .from(items)
      .where(
        and(
          eq(items.projectId, project),
          eq(items.withdrawn, false),
          ne(items.html, ''),
          longest ? ilike(bare, `%${longest.replace(/[\\%_]/g, '\\$&')}%`) : undefined,
        ),
      );
  }

  /** Withdrawn items that say that they came about, or went, in a certain way. */
  async findWithOrigin(project: string, origin: string): Promise<{ id: string }[]> {
    const { items } = schema;
    return this.db
      .select({ id: items.id })
      .from(items)
      .where(and(eq(items.projectId, project), eq(items.origin, origin), eq(items.withdrawn, true)));
  }

  /** The newest version of a source that has the item, and where it stands there; the first version where no later one notes it. */
  async findSource(project: string, lineage: string, item: string): Promise<{ id: string; name: string; place: SourcePlace | null } | undefined> {
    const { places } = schema;
    const noted = await this.db.select({ source: places.sourceId, place: places.place }).from(places).where(eq(places.itemId, item));
    const sources = await this.rows.findRows(project, 'source', [...noted.map(({ source }) => source), lineage]);
    const [newest] = noted
      .flatMap(({ source: id, place }) => {
        const source = sources.get(id);
        return source?.lineageId === lineage && !source.withdrawn ? [{ id, name: source.name, place, at: new Date(source.importedAt).getTime() }] : [];
      })
      .sort((a, b) => b.at - a.at);
    if (newest) return newest;
    const first = sources.get(lineage);
    return first && { id: first.id, name: first.name, place: null };
  }

  /** Where links came from and what their own fields say, as whoever asks reads them. */
  findLinks(project: string, links: readonly string[]): Promise<Map<string, LinkValue>> {
    return this.rows.findRows(project, 'link', links);
  }

  /** Every result of the given tests in live runs, newest first. */
  async findResults(project: string, tests: readonly string[]) {
    if (tests.length === 0) return [];
    const { results, runs } = schema;
    const live = (await this.rows.findAll(project, 'run')).map((run) => run.id);
    return this.db
      .select({ test: results.testId, outcome: results.outcome, at: runs.at, run: runs.name, message: results.message, duration: results.duration })
      .from(results)
      .innerJoin(runs, eq(runs.id, results.runId))
      .where(and(inArray(results.testId, [...tests]), inArray(runs.id, live)))
      .orderBy(desc(runs.at), desc(runs.seq), asc(results.ordinal));
  }
}
