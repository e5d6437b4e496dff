import type { FieldValue } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { and, asc, eq, gt } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';

export interface FoundRow {
  id: string;
  html: string;
  fields: Record<string, FieldValue>;
}

/** What items say, for looking through it. */
@Injectable()
export class FindRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** Texts and fields of a project's items, by id, some at a time. */
  readAfter(project: string, after: string | undefined, most: number): Promise<FoundRow[]> {
    const { items } = schema;
    return this.db
      .select({ id: items.id, html: items.html, fields: items.fields })
      .from(items)
      .where(after === undefined ? eq(items.projectId, project) : and(eq(items.projectId, project), gt(items.id, after)))
      .orderBy(asc(items.id))
      .limit(most) as Promise<FoundRow[]>;
  }

  /** Names of live sources by id. */
  async sourceNames(project: string): Promise<Map<string, string>> {
    const { sources } = schema;
    const rows = await this.db.select({ id: sources.id, name: sources.name, withdrawn: sources.withdrawn }).from(sources).where(eq(sources.projectId, project));
    return new Map(rows.filter((row) => !row.withdrawn).map((row) => [row.id, row.name]));
  }
}
