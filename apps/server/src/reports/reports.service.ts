import type { ReplyOf, createReport, getReport } from '@coomb/contract';
import { cleanAllTexts } from '@coomb/core';
import type { z } from 'zod';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { asIso } from '../ledger/ledger.service.js';
import { LiveService } from '../live/live.service.js';
import { ProjectStates } from '../project-state/project-states.js';
import { buildReportBody } from './build-report.js';
import { buildScope } from './report-scope.js';
import { type ReportRow, ReportsRepo } from './reports.repo.js';

type Summary = ReplyOf<typeof createReport>;

@Injectable()
export class ReportsService {
  constructor(
    @Inject(ReportsRepo) private readonly repo: ReportsRepo,
    @Inject(LedgerRepo) private readonly ledger: LedgerRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LiveService) private readonly live: LiveService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async list(project: string): Promise<Summary[]> {
    const state = await this.states.get(project);
    return (await this.repo.list(project)).map((row) => summarise(row, state.seq));
  }

  async create(project: string, person: string, { title, note, ...parts }: z.output<NonNullable<(typeof createReport)['body']>>): Promise<Summary> {
    const state = await this.states.get(project);
    const scope = buildScope(state, parts);
    // Compared with the last report about the same parts: figures of other parts say nothing of these.
    const newest = await this.repo.findLast(project);
    const last = await this.repo.findLastLike(project, scope.parts);
    const touched = last ? await this.ledger.findTouchedSince(project, last.seq) : [];
    const at = this.clock.now().toISOString();
    const body = buildReportBody(state, { title, note, at, person }, scope, last, touched);
    const row: ReportRow = { id: this.clock.newId(), projectId: project, number: (newest?.number ?? 0) + 1, title, at, person, seq: state.seq, body };
    await this.repo.insert(row);
    this.live.publish(project, { type: 'change', seq: state.seq, person, action: `Publish report ${row.number}`, items: [] });
    return summarise(row, state.seq);
  }

  async get(project: string, id: string): Promise<ReplyOf<typeof getReport>> {
    const state = await this.states.get(project);
    const row = await this.repo.get(project, id);
    const body = structuredClone(row.body);
    // Texts that were stored before they were cleaned on the way in must break no document on the way out.
    cleanAllTexts(body, () => false);
    return { ...summarise(row, state.seq), body: { ...body, parts: body.parts ?? null } };
  }
}

function summarise(row: Omit<ReportRow, 'body'>, seq: number): Summary {
  return { id: row.id, number: row.number, title: row.title, at: asIso(row.at), person: row.person, seq: row.seq, stale: row.seq < seq };
}
