import { createHash } from 'node:crypto';
import { CoombError } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { and, eq, getTableColumns, isNull, sql } from 'drizzle-orm';
import type { Connection, Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';

export type FileRow = typeof schema.files.$inferSelect;
export type NewFile = Omit<FileRow, 'sha256'>;

/** Bytes travel as base64 in both directions (see schema.ts). */
const fileColumns = {
  ...getTableColumns(schema.files),
  bytes: sql`encode(${schema.files.bytes}, 'base64')`.mapWith((text: string) => Buffer.from(text, 'base64')),
};

/** Original files, pictures that came in them, and pictures that people put into texts. */
@Injectable()
export class FilesRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  async insertFiles(tx: Connection, rows: readonly NewFile[]): Promise<void> {
    for (const row of rows) await tx.insert(schema.files).values({ ...row, sha256: createHash('sha256').update(row.bytes).digest('hex') });
  }

  /** Pictures stored with any version of a source: id by the hash of their bytes. */
  async findPictures(project: string, lineage: string): Promise<Map<string, string>> {
    const { rows } = await this.db.execute(sql`
      select file.id, file.sha256 as hash from file join source on source.id = file.source_id
      where file.project_id = ${project} and source.lineage_id = ${lineage} and file.id <> file.source_id`);
    return new Map((rows as { id: string; hash: string }[]).map(({ id, hash }) => [hash, id]));
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

  /** The id of a picture that people stored, by the hash of its bytes. */
  async findPicture(project: string, sha256: string): Promise<string | undefined> {
    const [row] = await this.db
      .select({ id: schema.files.id })
      .from(schema.files)
      .where(and(eq(schema.files.projectId, project), isNull(schema.files.sourceId), eq(schema.files.sha256, sha256)));
    return row?.id;
  }

  /** Nothing happens where it is stored already. */
  async insertPicture(row: typeof schema.files.$inferInsert): Promise<void> {
    await this.db.insert(schema.files).values(row).onConflictDoNothing();
  }
}
