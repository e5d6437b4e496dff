import { Inject, Injectable } from '@nestjs/common';
import { and, eq, getTableColumns } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import type * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { Entities, Entity } from './change.js';
import { ledgerEntities } from './entities.js';
import { LedgerRepo } from './ledger.repo.js';
import { PastRepo } from './past.repo.js';
import { StagedChanges } from './staged-changes.js';

type Light<E extends Entity> = E extends 'report' ? Omit<Entities['report'], 'body'> : Entities[E];

/** Rows of the ledger as whoever asks reads them: as they are, or as of the change that the request names. */
@Injectable()
export class LedgerReader {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(PastRepo) private readonly past: PastRepo,
    @Inject(StagedChanges) private readonly staged: StagedChanges,
  ) {}

  /** Rows by id, withdrawn ones too; ids that are (or were) not there are left out. Read as of a change, items have no node and reports no body. */
  findRows<E extends Entity>(project: string, entity: E, ids: readonly string[]): Promise<Map<string, Entities[E]>> {
    const moment = this.staged.momentOf(project);
    return moment === undefined ? this.rows.findRows(entity, ids) : this.past.findRows(project, moment, entity, ids);
  }

  /** All rows of a project that are not withdrawn, in no order: for sorts of which a project has few. Reports come without their body. */
  async findAll<E extends Exclude<Entity, 'project' | 'item' | 'link'>>(project: string, entity: E): Promise<Light<E>[]> {
    const moment = this.staged.momentOf(project);
    // A whole value is a light one as well.
    if (moment !== undefined) return [...(await this.past.findAll(project, moment, entity)).values()].filter((row) => !row.withdrawn) as unknown as Light<E>[];
    const table = ledgerEntities[entity].table as typeof schema.recipes;
    // Tables of the ledger have their columns by the names of their values.
    const columns = getTableColumns(table) as unknown as Record<string, (typeof table)['id']>;
    const rows = await this.db
      .select(Object.fromEntries(['projectId', ...ledgerEntities[entity].keys].map((key) => [key, columns[key]!])))
      .from(table)
      .where(and(eq(table.projectId, project), eq(table.withdrawn, false)));
    // The columns that were asked for are those of a light value.
    return rows as unknown as Light<E>[];
  }
}
