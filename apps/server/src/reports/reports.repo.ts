import { CoombError, type ReportBody } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { and, desc, eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';

type Row = typeof schema.reports.$inferSelect;
export type ReportRow = Omit<Row, 'body'> & { body: ReportBody };

@Injectable()
export class ReportsRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  async list(project: string): Promise<Omit<ReportRow, 'body'>[]> {
    const { id, projectId, number, title, at, person, seq } = schema.reports;
    return this.db.select({ id, projectId, number, title, at, person, seq }).from(schema.reports).where(eq(projectId, project)).orderBy(desc(number));
  }

  async findLast(project: string): Promise<ReportRow | undefined> {
    const [row] = await this.db.select().from(schema.reports).where(eq(schema.reports.projectId, project)).orderBy(desc(schema.reports.number)).limit(1);
    return row as ReportRow | undefined;
  }

  /** The newest report about the same parts of the project. */
  async findLastLike(project: string, parts: ReportBody['parts']): Promise<ReportRow | undefined> {
    const { reports } = schema;
    const like =
      parts === null ? sql`coalesce(${reports.body} -> 'parts', 'null') = 'null'` : sql`${reports.body} -> 'parts' = ${JSON.stringify(parts)}::jsonb`;
    const [row] = await this.db
      .select()
      .from(reports)
      .where(and(eq(reports.projectId, project), like))
      .orderBy(desc(reports.number))
      .limit(1);
    return row as ReportRow | undefined;
  }

  async get(project: string, id: string): Promise<ReportRow> {
    const [row] = await this.db
      .select()
      .from(schema.reports)
      .where(and(eq(schema.reports.projectId, project), eq(schema.reports.id, id)));
    if (!row) throw new CoombError('not-found', 'There is no such report.');
    return row as ReportRow;
  }

  async insert(row: ReportRow): Promise<void> {
    await this.db.insert(schema.reports).values(row);
  }
}
