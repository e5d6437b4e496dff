import { Inject, Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import { insertRows } from '../database/insert-rows.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { SchemePartValue } from '../ledger/change.js';
import { ledgerEntities, writeValue } from '../ledger/entities.js';

export interface Counts {
  items: number;
  links: number;
}

@Injectable()
export class ProjectsRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** In the order in which they were started. */
  list(): Promise<{ id: string; name: string; createdAt: string; seq: number; archived: boolean; withdrawn: boolean }[]> {
    const { id, name, createdAt, seq, archived, withdrawn } = schema.projects;
    return this.db.select({ id, name, createdAt, seq, archived, withdrawn }).from(schema.projects).orderBy(createdAt);
  }

  /** How many items (without sections) and links a project has. Counts rows: takes a while for large ones. */
  async count(project: string): Promise<Counts> {
    const { rows } = await this.db.execute(sql`
      select (select count(*)::int from item where project_id = ${project} and not withdrawn and not heading) as items,
        (select count(*)::int from link where project_id = ${project} and not withdrawn) as links`);
    // The columns are named in the query.
    return rows[0] as unknown as Counts;
  }

  async isThere(id: string): Promise<boolean> {
    return (await this.db.select({ id: schema.projects.id }).from(schema.projects).where(eq(schema.projects.id, id))).length > 0;
  }

  /** Number of the last change of a project that is there. */
  async findSeq(id: string): Promise<number> {
    const [row] = await this.db.select({ seq: schema.projects.seq }).from(schema.projects).where(eq(schema.projects.id, id));
    return row?.seq ?? 0;
  }

  /** A new project with its scheme: what stood before anybody changed it is number 0 of its history. */
  async insert(row: { id: string; name: string; createdAt: string }, parts: readonly SchemePartValue[]): Promise<void> {
    await this.db.transaction(async (tx) => {
      const [project] = await tx
        .insert(schema.projects)
        .values({ ...row, seq: 0 })
        .returning();
      const entry = { projectId: row.id, seq: 0 };
      await tx.insert(schema.history).values({ ...entry, ordinal: 0, entity: 'project', entityId: row.id, ...writeValue(ledgerEntities.project, project!) });
      await insertRows(tx, schema.schemeParts, parts);
      const records = parts.map((part, index) => ({
        ...{ ...entry, ordinal: index + 1, entity: 'schemePart' as const, entityId: part.id },
        ...writeValue(ledgerEntities.schemePart, part),
      }));
      await insertRows(tx, schema.history, records);
    });
  }
}
