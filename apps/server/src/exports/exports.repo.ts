import { Inject, Injectable } from '@nestjs/common';
import { and, desc, eq, inArray, ne, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { ItemRow, SourceRow } from '../ledger/change.js';

/** What of an item goes out. */
export type ExportRow = Pick<ItemRow, 'id' | 'reference' | 'externalId' | 'title' | 'html' | 'kind' | 'heading' | 'fields' | 'base'>;

@Injectable()
export class ExportsRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  async findNewestReqif(project: string, collection: string): Promise<SourceRow | undefined> {
    const { sources } = schema;
    const [row] = await this.db
      .select()
      .from(sources)
      .where(and(eq(sources.projectId, project), eq(sources.collectionId, collection), eq(sources.format, 'reqif'), eq(sources.withdrawn, false)))
      .orderBy(desc(sources.importedAt))
      .limit(1);
    return row;
  }

  /**
   * Items by id, as much of them as goes out, in any order; ids that do not exist are left out. One JSON text of ExportRow[]: rows of values
   * one by one take the database four times as long, and the text is read where it is needed only.
   */
  async findRows(ids: readonly string[]): Promise<string> {
    const { rows } = await this.db.execute<{ text: string }>(sql`
      select coalesce(json_agg(json_build_object(
        'id', id, 'reference', reference, 'externalId', external_id, 'title', title, 'html', html, 'kind', kind,
        'heading', heading, 'fields', fields, 'base', base
      )), '[]')::text as text from item where id = any(${`{${ids.join(',')}}`}::uuid[])`);
    return rows[0]!.text;
  }

  /** Links that somebody removed, by the item that they led from. */
  async findRemovedLinks(project: string): Promise<Map<string, { linkKind: string; other: string }[]>> {
    const { links } = schema;
    const rows = await this.db
      .select({ linkKind: links.kind, from: links.fromId, other: links.toId })
      .from(links)
      .where(and(eq(links.projectId, project), eq(links.withdrawn, true)));
    const found = new Map<string, { linkKind: string; other: string }[]>();
    for (const { from, linkKind, other } of rows) found.set(from, [...(found.get(from) ?? []), { linkKind, other }]);
    return found;
  }

  async findFiles(project: string, ids: readonly string[]): Promise<{ id: string; name: string; mediaType: string; bytes: Uint8Array }[]> {
    const { files } = schema;
    if (ids.length === 0) return [];
    return this.db
      .select({ id: files.id, name: files.name, mediaType: files.mediaType, bytes: files.bytes })
      .from(files)
      .where(and(eq(files.projectId, project), inArray(files.id, [...ids])));
  }

  /** Names that stored pictures have in their file, by their stored id. */
  async findPictureNames(project: string, lineage: string): Promise<Map<string, string>> {
    const { files, sources } = schema;
    const rows = await this.db
      .select({ id: files.id, name: files.name })
      .from(files)
      .innerJoin(sources, eq(sources.id, files.sourceId))
      .where(and(eq(files.projectId, project), eq(sources.lineageId, lineage), ne(files.id, sql`${files.sourceId}`)));
    return new Map(rows.map((row) => [row.id, row.name]));
  }
}
