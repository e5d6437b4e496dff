import type { Scheme } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';

export type ProjectRow = typeof schema.projects.$inferSelect;

@Injectable()
export class ProjectsRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  async list(): Promise<{ id: string; name: string; createdAt: string; items: number; links: number }[]> {
    const { rows } = await this.db.execute(sql`
      select project.id, project.name, project.created_at as "createdAt",
        (select count(*)::int from item where item.project_id = project.id and not item.withdrawn and not item.heading) as items,
        (select count(*)::int from link where link.project_id = project.id and not link.withdrawn) as links
      from project order by project.created_at`);
    return rows as { id: string; name: string; createdAt: string; items: number; links: number }[];
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
