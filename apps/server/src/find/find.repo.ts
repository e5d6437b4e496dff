import type { FieldValue } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { inArray } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import { PastRepo } from '../ledger/past.repo.js';
import { StagedChanges } from '../ledger/staged-changes.js';

export interface FoundRow {
  id: string;
  html: string;
  fields: Record<string, FieldValue>;
}

/** What items say, for looking through it. */
@Injectable()
export class FindRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(PastRepo) private readonly past: PastRepo,
    @Inject(StagedChanges) private readonly staged: StagedChanges,
  ) {}

  /** Texts and fields of items. */
  async readSaid(project: string, ids: readonly string[]): Promise<Map<string, FoundRow>> {
    const moment = this.staged.momentOf(project);
    if (moment !== undefined) return this.past.findRows(project, moment, 'item', ids);
    const { items } = schema;
    const rows = await this.db
      .select({ id: items.id, html: items.html, fields: items.fields })
      .from(items)
      .where(inArray(items.id, [...ids]));
    return new Map(rows.map((row) => [row.id, row]));
  }
}
