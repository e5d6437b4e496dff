import type { Scheme } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';

export type ProjectRow = typeof schema.projects.$inferSelect;

export interface Counts {
  items: number;
  links: number;
}

@Injectable()
export class ProjectsRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** In the order in which they were started. */
  list(): Promise<{ id: string; name: string; createdAt: string; seq: number }[]> {
    const { id, name, createdAt, seq } = schema.projects;
    return this.db.select({ id, name, createdAt, seq }).from(schema.projects).orderBy(createdAt);
  }

  /** How many items (without sections) and links a project has. Counts rows: takes a while for large ones. */
  async count(project: string): Promise<Counts> {
    const { rows } = await this.db.execute(sql`
      select (select count(*)::int from item where project_id = ${project} and not withdrawn and not heading) as items,
        (select count(*)::int from link where project_id = ${project} and not withdrawn) as links`);
    return rows[0] as unknown as Counts;
  }

  async isThere(id: string): Promise<boolean> {
    return (await this.db.select({ id: schema.projects.id }).from(schema.projects).where(eq(schema.projects.id, id))).length > 0;
  }

  async insert(row: { id: string; name: string; scheme: Scheme; createdAt: string }): Promise<void> {
    await this.db.insert(schema.projects).values({ ...row, seq: 0 });
  }

  async rename(id: string, name: string): Promise<void> {
    await this.db.update(schema.projects).set({ name }).where(eq(schema.projects.id, id));
  }
}
