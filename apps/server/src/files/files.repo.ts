import { createHash } from 'node:crypto';
import { CoombError } from '@coomb/contract';
import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { and, eq, getTableColumns, inArray, isNull, sql } from 'drizzle-orm';
import type { Connection, Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';

export type FileRow = typeof schema.files.$inferSelect;
export type NewFile = Omit<FileRow, 'sha256' | 'parts'>;

/** Larger files are written and read part by part. */
const PART = 512 * 1024;
/** Parts of files that are not there. */
const LOOSE = sql`not exists (select 1 from file where file.id = file_part.file_id)`;

/** Bytes travel as base64 in both directions (see schema.ts). */
const asBytes = (column: typeof schema.files.bytes | typeof schema.fileParts.bytes) =>
  sql`encode(${column}, 'base64')`.mapWith((text: string) => Buffer.from(text, 'base64'));

const fileColumns = {
  ...getTableColumns(schema.files),
  bytes: asBytes(schema.files.bytes),
};

/** The bytes of a file that was read without its parts. Throws where one is missing. */
export async function readWhole(db: Database, { id, bytes, parts }: Pick<FileRow, 'id' | 'bytes' | 'parts'>): Promise<Uint8Array> {
  const { fileParts } = schema;
  if (parts === 0) return bytes;
  const read: Uint8Array[] = [];
  for (let number = 0; number < parts; number++) {
    const [part] = await db
      .select({ bytes: asBytes(fileParts.bytes) })
      .from(fileParts)
      .where(and(eq(fileParts.fileId, id), eq(fileParts.number, number)));
    if (!part) throw new Error(`Part ${number + 1} of ${parts} of the stored file ${id} is missing`);
    read.push(part.bytes);
  }
  return Buffer.concat(read);
}

/** Original files, pictures that came in them, and pictures that people put into texts. */
@Injectable()
export class FilesRepo implements OnApplicationBootstrap {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** Parts of files that a server wrote ahead and then stopped. */
  async onApplicationBootstrap(): Promise<void> {
    await this.db.delete(schema.fileParts).where(LOOSE);
  }

  /** Writes the parts of large files, which are no files before `insertFiles`. */
  async writeAhead(files: readonly NewFile[]): Promise<void> {
    for (const { id: fileId, bytes } of files)
      for (let number = 0; number < countParts(bytes); number++)
        await this.db.insert(schema.fileParts).values({ fileId, number, bytes: bytes.subarray(number * PART, (number + 1) * PART) });
  }

  /** Takes back what was written ahead of files that were not to be. */
  async dropAhead(files: readonly NewFile[]): Promise<void> {
    const large = files.filter(({ bytes }) => countParts(bytes) > 0).map(({ id }) => id);
    if (large.length > 0) await this.db.delete(schema.fileParts).where(and(inArray(schema.fileParts.fileId, large), LOOSE));
  }

  /** Files whose parts were written ahead, where they have any. */
  async insertFiles(tx: Connection, files: readonly NewFile[]): Promise<void> {
    for (const file of files) {
      const parts = countParts(file.bytes);
      const sha256 = createHash('sha256').update(file.bytes).digest('hex');
      await tx.insert(schema.files).values({ ...file, sha256, parts, ...(parts > 0 && { bytes: new Uint8Array() }) });
    }
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
    return { ...row, bytes: await readWhole(this.db, row) };
  }

  async getOriginal(project: string, source: string): Promise<FileRow> {
    const [row] = await this.db
      .select(fileColumns)
      .from(schema.files)
      .where(and(eq(schema.files.projectId, project), eq(schema.files.sourceId, source), eq(schema.files.id, source)));
    if (!row) throw new CoombError('not-found', 'The original of this source is not stored.');
    return { ...row, bytes: await readWhole(this.db, row) };
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

function countParts({ length }: Uint8Array): number {
  return length > PART ? Math.ceil(length / PART) : 0;
}
