import { Inject, Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import { LedgerReader } from '../ledger/ledger-reader.js';

export type ResultRow = typeof schema.results.$inferSelect;

interface RunSummary {
  id: string;
  name: string;
  at: string;
  counts: { passed: number; failed: number; broken: number; skipped: number; unmatched: number };
}

@Injectable()
export class RunsRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  async listRuns(project: string): Promise<RunSummary[]> {
    const live = (await this.rows.findAll(project, 'run')).map(({ id }) => id);
    const { rows } = await this.db.execute(sql`
      select run.id, run.name, run.at,
        json_build_object('passed', count(*) filter (where outcome = 'passed'), 'failed', count(*) filter (where outcome = 'failed'),
          'broken', count(*) filter (where outcome = 'broken'), 'skipped', count(*) filter (where outcome = 'skipped'),
          'unmatched', count(*) filter (where test_id is null)) as counts
      from run left join result on result.run_id = run.id
      where run.id = any(${`{${live.join(',')}}`}::uuid[]) group by run.id order by run.at desc, run.seq desc`);
    // The columns are named in the query.
    return rows as never;
  }

  async listResults(run: string): Promise<ResultRow[]> {
    return this.db.select().from(schema.results).where(eq(schema.results.runId, run)).orderBy(schema.results.ordinal);
  }
}
