import { CoombError, type ReportBody } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { and, desc, eq, max, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import type { ReportValue } from '../ledger/change.js';
import { readStored } from './stored-report.js';

@Injectable()
export class ReportsRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  /** The newest first. */
  async list(project: string): Promise<Omit<ReportValue, 'body'>[]> {
    const rows = await this.rows.findAll(project, 'report');
    return rows.sort((a, b) => b.number - a.number);
  }

  /** Number that the next report has: numbers of reports that were taken back are not given again. */
  async nextNumber(project: string): Promise<number> {
    const { number, projectId } = schema.reports;
    const [row] = await this.db
      .select({ last: max(number) })
      .from(schema.reports)
      .where(eq(projectId, project));
    return (row?.last ?? 0) + 1;
  }

  /** Change that the newest report is of. */
  async findLastSeq(project: string): Promise<number | undefined> {
    return (await this.list(project))[0]?.seq;
  }

  /** The newest report about the same parts of the project. */
  async findLastLike(project: string, parts: ReportBody['parts']): Promise<ReportValue | undefined> {
    const { reports } = schema;
    const like =
      parts === null ? sql`coalesce(${reports.body} -> 'parts', 'null') = 'null'` : sql`${reports.body} -> 'parts' = ${JSON.stringify(parts)}::jsonb`;
    const [row] = await this.db
      .select()
      .from(reports)
      .where(and(ofProject(project), like))
      .orderBy(desc(reports.number))
      .limit(1);
    return row && { ...row, body: readStored(row.body) };
  }

  async get(project: string, id: string): Promise<ReportValue> {
    const known = (await this.rows.findRows(project, 'report', [id])).get(id);
    if (known?.projectId !== project || known.withdrawn) throw new CoombError('not-found', 'There is no such report; it may have been taken back.');
    const [row] = await this.db.select().from(schema.reports).where(eq(schema.reports.id, id));
    return { ...row!, body: readStored(row!.body) };
  }
}

function ofProject(project: string) {
  return and(eq(schema.reports.projectId, project), eq(schema.reports.withdrawn, false));
}
