import { setImmediate } from 'node:timers/promises';
import type { ReplyOf, trendFindings } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { whileAt } from '../http/caller.js';
import { LensesService } from '../lenses/lenses.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { spreadMoments } from '../project-state/spread-moments.js';
import { ProjectStates } from '../project-state/project-states.js';
import { FindingsService, isSeenThrough } from './findings.service.js';

type Point = ReplyOf<typeof trendFindings>[number];

/** How findings came and went: the project as it stood after some of its changes, each looked at once. */
@Injectable()
export class FindingTrend {
  private readonly known = new Map<string, Point>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(FindingsService) private readonly findings: FindingsService,
    @Inject(LensesService) private readonly lenses: LensesService,
  ) {}

  async read(projectId: string, points: number, lens?: string): Promise<Point[]> {
    const now = await this.states.get(projectId);
    const last = now.seq;
    const through = lens === undefined ? '' : `${lens} ${await this.lenses.revisionOf(now, lens)}`;
    const found: Point[] = [];
    for (const seq of spreadMoments(last, points)) {
      const key = `${projectId} ${now.life} ${seq} ${now.day} ${through}`;
      const point = this.known.get(key) ?? (await this.look(now, seq, lens));
      if (!point) continue;
      this.known.set(key, point);
      found.push(point);
      await setImmediate();
    }
    for (const key of this.known.keys()) if (this.known.size > 500) this.known.delete(key);
    return found;
  }

  private async look(now: ProjectState, seq: number, lens: string | undefined): Promise<Point | undefined> {
    const batch = await this.rows.findBatch(now.id, seq);
    if (!batch) return undefined;
    const state = seq === now.seq ? now : await this.states.getAt(now.id, seq);
    // What a lens asks of fields and texts is asked of that moment.
    const seen = lens === undefined ? undefined : await (state === now ? this.lenses.seen(now, lens) : whileAt(seq, () => this.lenses.seen(state, lens)));
    const open: Point['open'] = { coverage: 0, evidence: 0, links: 0 };
    for (const { group, found } of await this.findings.find(state))
      if (group !== 'texts') open[group] += found.filter((one) => one.waivedUnder === undefined && (!seen || isSeenThrough(seen, one))).length;
    return { seq, at: new Date(batch.at).toISOString(), open };
  }
}
