import { Inject, Injectable } from '@nestjs/common';
import { and, eq, isNull } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import { files } from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';

@Injectable()
export class PicturesRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** The id of a picture that people stored, by the hash of its bytes. */
  async findPicture(project: string, sha256: string): Promise<string | undefined> {
    const [row] = await this.db
      .select({ id: files.id })
      .from(files)
      .where(and(eq(files.projectId, project), isNull(files.sourceId), eq(files.sha256, sha256)));
    return row?.id;
  }

  /** Nothing happens where it is stored already. */
  async insertPicture(row: typeof files.$inferInsert): Promise<void> {
    await this.db.insert(files).values(row).onConflictDoNothing();
  }
}
