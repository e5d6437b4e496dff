import { Inject, Injectable } from '@nestjs/common';
import { and, desc, eq, inArray, ne, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { SourceRow } from '../ledger/change.js';

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
