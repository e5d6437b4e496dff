import { CoombError, type createReport, type getReport, type ReplyOf, type ReportBody } from '@coomb/contract';
import { cleanAllTexts } from '@coomb/core';
import type { z } from 'zod';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { asIso, LedgerService } from '../changes/ledger.service.js';
import { ColoursService } from '../lenses/colours.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { PersonsService } from '../persons/persons.service.js';
import { ProjectStates } from '../project-state/project-states.js';
import { buildReportBody } from './build-report.js';
import { buildScope } from './report-scope.js';
import type { ReportValue } from '../ledger/change.js';
import { ReportsRepo } from './reports.repo.js';

type Summary = ReplyOf<typeof createReport>;

@Injectable()
export class ReportsService {
  constructor(
    @Inject(ReportsRepo) private readonly repo: ReportsRepo,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(ColoursService) private readonly colours: ColoursService,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async list(project: string): Promise<Summary[]> {
    const state = await this.states.get(project);
    return (await this.repo.list(project)).map((row) => summarise(row, state));
  }

  async create(project: string, person: string, { title, note, key, ...parts }: z.output<NonNullable<(typeof createReport)['body']>>): Promise<Summary> {
    let row!: ReportValue;
    const colours = key === undefined ? undefined : await this.coloursOf(project, key);
    await this.ledger.change(project, async (state) => {
      const scope = buildScope(state, parts);
      // Compared with the last report about the same parts: figures of other parts say nothing of these.
      const last = await this.repo.findLastLike(project, scope.parts);
      const touched = last ? await this.rows.findChangesSince(project, last.seq) : [];
      const at = this.clock.now().toISOString();
      const body = buildReportBody(state, { title, note, at, person: this.persons.nameOf(person), ...(colours && { colours }) }, scope, last, touched);
      const number = await this.repo.nextNumber(project);
      row = { id: this.clock.newId(), projectId: project, revision: 1, withdrawn: false, number, title, at, person, seq: state.seq, body };
      return { person, action: `Publish report ${number}: ${title}`, changes: [{ entity: 'report', before: null, after: row }] };
    });
    return summarise(row, await this.states.get(project));
  }

  /** Refuses a key of links: a report has references to colour. */
  private async coloursOf(project: string, key: string): Promise<ReportBody['colours']> {
    const { name, about, entries, items } = await this.colours.read(project, key);
    if (about !== 'items') throw new CoombError('input-invalid', `“${name}” colours links. Choose a key that colours items.`);
    return { name, items, entries: entries.map(({ value: _value, count: _count, ...entry }) => entry) };
  }

  async get(project: string, id: string): Promise<ReplyOf<typeof getReport>> {
    const state = await this.states.get(project);
    const row = await this.repo.get(project, id);
    const body = structuredClone(row.body);
    // Texts that were stored before they were cleaned on the way in must break no document on the way out.
    cleanAllTexts(body, () => false);
    return { ...summarise(row, state), body };
  }
}

function summarise(row: Omit<ReportValue, 'body'>, state: ProjectState): Summary {
  return { id: row.id, number: row.number, title: row.title, at: asIso(row.at), person: row.person, seq: row.seq, stale: row.seq < state.contentSeq };
}
