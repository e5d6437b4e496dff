import { setImmediate } from 'node:timers/promises';
import type { ReplyOf, trendFindings } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import type { ProjectState } from '../project-state/project-state.js';
import { spreadMoments } from '../project-state/spread-moments.js';
import { ProjectStates } from '../project-state/project-states.js';
import { FindingsService } from './findings.service.js';

type Point = ReplyOf<typeof trendFindings>[number];

/** How findings came and went: the project as it stood after some of its changes, each looked at once. */
@Injectable()
export class FindingTrend {
  private readonly known = new Map<string, Point>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(FindingsService) private readonly findings: FindingsService,
  ) {}

  async read(projectId: string, points: number): Promise<Point[]> {
    const now = await this.states.get(projectId);
    const last = now.seq;
    const found: Point[] = [];
    for (const seq of spreadMoments(last, points)) {
      const key = `${projectId} ${now.life} ${seq} ${now.day}`;
      const point = this.known.get(key) ?? (await this.look(seq === last ? now : await this.states.getAt(projectId, seq), seq));
      if (!point) continue;
      this.known.set(key, point);
      found.push(point);
      await setImmediate();
    }
    for (const key of this.known.keys()) if (this.known.size > 500) this.known.delete(key);
    return found;
  }

  private async look(state: ProjectState, seq: number): Promise<Point | undefined> {
    const batch = await this.rows.findBatch(state.id, seq);
    if (!batch) return undefined;
    const open: Point['open'] = { coverage: 0, evidence: 0, links: 0 };
    for (const { group, found } of await this.findings.find(state))
      if (group !== 'texts') open[group] += found.filter(({ waivedUnder }) => waivedUnder === undefined).length;
    return { seq, at: new Date(batch.at).toISOString(), open };
  }
}
