import {
  type BodyOf,
  CoombError,
  type holdInLens,
  type LensBody,
  type lookThrough,
  readLensText,
  type ReplyOf,
  savedVersionOf,
  savedViewSortOf,
} from '@coomb/contract';
import { counted, passerOf, seenThrough } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { SavedViewValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { RegisterGrounds } from './register-grounds.js';

/** What is seen through kept lenses. */
@Injectable()
export class LensesService {
  private readonly kept = new WeakMap<ProjectState, Map<string, Uint8Array>>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(RegisterGrounds) private readonly grounds: RegisterGrounds,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async look(projectId: string, lensId: string): Promise<ReplyOf<typeof lookThrough>> {
    const state = await this.states.get(projectId);
    const { row, lens } = await this.find(state, lensId);
    const seen = await this.seen(state, lensId);
    const ground = await this.grounds.findFor(state, lens.conditions);
    const { graph, items } = state;
    let [linksWithin, linksAcross] = [0, 0];
    for (let link = 0; link < graph.links; link++) {
      if (!graph.isAlive(link)) continue;
      const [from, to] = [graph.from[link]!, graph.to[link]!];
      if (!state.isPresent(from) || !state.isPresent(to)) continue;
      if (seen[from]! & seen[to]!) linksWithin++;
      else if (seen[from]! | seen[to]!) linksAcross++;
    }
    const nodes = Array.from(seen.keys()).filter((node) => seen[node]);
    return {
      ...{ seq: state.seq, name: row.name, nodes, linksWithin, linksAcross, items: nodes.filter((node) => !items[node]!.heading).length },
      unknown: lens.conditions.flatMap((condition, at) => (passerOf(ground, condition) ? [] : [at])),
    };
  }

  /** Tells apart what a lens was and is. */
  async revisionOf(state: ProjectState, lensId: string): Promise<number> {
    return (await this.find(state, lensId)).row.revision;
  }

  /** 1 for each node that is seen through a lens. */
  async seen(state: ProjectState, lensId: string): Promise<Uint8Array> {
    const { row, lens } = await this.find(state, lensId);
    const key = `${state.seq} ${state.day} ${lensId} ${row.revision}`;
    const known = this.kept.get(state) ?? new Map<string, Uint8Array>();
    this.kept.set(state, known);
    let seen = known.get(key);
    if (!seen) {
      seen = seenThrough(await this.grounds.findFor(state, lens.conditions), lens, (id) => state.nodeOf.get(id));
      known.clear();
      known.set(key, seen);
    }
    return seen;
  }

  /** Holds items in a lens or out of it by hand. */
  async hold(projectId: string, person: string, lensId: string, { items, as }: NonNullable<BodyOf<typeof holdInLens>>): Promise<ReplyOf<typeof holdInLens>> {
    const state = await this.states.get(projectId);
    let changed = 0;
    const { seq } = await this.ledger.change(projectId, async () => {
      const { row, lens } = await this.find(state, lensId);
      const moved = new Set(items);
      const next: LensBody = { ...lens, pinned: lens.pinned.filter((id) => !moved.has(id)), leftOut: lens.leftOut.filter((id) => !moved.has(id)) };
      if (as !== 'asked') next[as] = [...next[as], ...moved];
      const before = new Map([...lens.pinned.map((id) => [id, 'pinned'] as const), ...lens.leftOut.map((id) => [id, 'leftOut'] as const)]);
      changed = [...moved].filter((id) => (before.get(id) ?? 'asked') !== as).length;
      const body = { ...row.body, lens: JSON.stringify(next) };
      const after: SavedViewValue = {
        ...row,
        body,
        version: savedVersionOf(savedViewSortOf('lens')!),
        at: this.clock.now().toISOString(),
        revision: row.revision + 1,
      };
      const done = { pinned: 'Pin', leftOut: 'Leave out', asked: 'Let conditions decide about' }[as];
      return {
        person,
        action: `${done} ${counted(changed, 'item')}: lens "${row.name}"`,
        changes: changed > 0 ? [{ entity: 'savedView', before: row, after }] : [],
      };
    });
    return { seq, changed };
  }

  /** As it is kept now, whatever moment is looked at: one looks at last month through today's lens. */
  private async find(state: ProjectState, id: string): Promise<{ row: SavedViewValue; lens: LensBody }> {
    const row = (await this.rows.findRows('savedView', [id])).get(id);
    const lens = row && !row.withdrawn && row.projectId === state.id && row.sort === 'lens' ? readLensText(String(row.body.lens)) : undefined;
    if (!row || !lens) throw new CoombError('not-found', 'This lens is not kept any more. Look through another, or through none.');
    return { row, lens };
  }
}
