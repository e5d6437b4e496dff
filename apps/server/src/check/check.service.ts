import { setImmediate } from 'node:timers/promises';
import type { Readiness, ReplyOf, createWaiver, explainCoverage, getRealisation, openFigure as openFigureEndpoint, trendFigure } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { buildExplanation, getKind, phraseAt, type Reached, UsageCoverage } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { whileAt } from '../http/caller.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { LensesService } from '../lenses/lenses.service.js';
import { getNode } from '../project-state/get-node.js';
import type { WaiverValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { LedgerService } from '../changes/ledger.service.js';
import { describeWaiver } from '../project-state/describe-waiver.js';
import type { ProjectState } from '../project-state/project-state.js';
import { spreadMoments } from '../project-state/spread-moments.js';
import { ProjectStates } from '../project-state/project-states.js';
import { countFigure, openFigure } from './figures/families.js';
import { buildReadiness } from './readiness.js';
import { buildRealisation } from './realisation.js';

type Waiver = ReplyOf<typeof createWaiver>;

/** What a figure is looked at of: a collection, or what is seen through a kept lens. */
interface Part {
  collection?: string | undefined;
  lens?: string | undefined;
}

/** Figures of earlier moments that are kept. */
const MOST_COUNTS = 2000;

@Injectable()
export class CheckService {
  /** What figures were after earlier changes: that does not change any more. */
  private readonly counts = new Map<string, number | null>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LensesService) private readonly lenses: LensesService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Every figure of what is seen through a lens. */
  async readinessThrough(projectId: string, lens: string): Promise<Readiness> {
    const state = await this.states.get(projectId);
    const seen = await this.lenses.seen(state, lens);
    return buildReadiness(state, (node) => seen[node] === 1);
  }

  /** Layers of what is seen through a lens. */
  async realisationThrough(projectId: string, lens: string): Promise<ReplyOf<typeof getRealisation>> {
    const state = await this.states.get(projectId);
    const seen = await this.lenses.seen(state, lens);
    return buildRealisation(state, (node) => seen[node] === 1);
  }

  async openFigure(projectId: string, id: string, part: Part): Promise<ReplyOf<typeof openFigureEndpoint>> {
    const state = await this.states.get(projectId);
    const within = await this.withinOf(state, part);
    const { label, explains, nodes, noteOf } = openFigure(state, id);
    const { rowOf } = state.outline();
    const kept = nodes.filter(within ?? (() => true)).sort((a, b) => rowOf[a]! - rowOf[b]!);
    return { id, label, explains, items: kept.map((node) => ({ ...state.brief(node), ...(noteOf && { note: noteOf(state, node) }) })) };
  }

  /** What a figure was after some of the changes up to the moment that is looked at. */
  async trend(projectId: string, id: string, part: Part, points: number): Promise<ReplyOf<typeof trendFigure>> {
    const now = await this.states.get(projectId);
    const { label } = openFigure(now, id);
    const revision = part.lens === undefined ? '' : await this.lenses.revisionOf(now, part.lens);
    const found: ReplyOf<typeof trendFigure>['points'] = [];
    for (const seq of spreadMoments(now.seq, points)) {
      const batch = await this.rows.findBatch(projectId, seq);
      if (!batch) continue;
      const key = `${projectId} ${now.life} ${seq} ${now.day} ${id} ${part.collection ?? ''} ${part.lens ?? ''} ${revision}`;
      let count = this.counts.get(key);
      if (count === undefined) {
        const then = seq === now.seq ? now : await this.states.getAt(projectId, seq);
        // What a lens asks of fields and texts is asked of that moment.
        const within = then === now ? await this.withinOf(now, part) : await whileAt(seq, () => this.withinOf(then, part));
        count = countThen(then, id, within);
        this.counts.set(key, count);
      }
      found.push({ seq, at: new Date(batch.at).toISOString(), action: batch.action, count });
      await setImmediate();
    }
    for (const key of this.counts.keys()) if (this.counts.size > MOST_COUNTS) this.counts.delete(key);
    return { label, points: found };
  }

  private async withinOf(state: ProjectState, { collection, lens }: Part): Promise<((node: number) => boolean) | undefined> {
    const seen = lens === undefined ? undefined : await this.lenses.seen(state, lens);
    if (!seen && collection === undefined) return undefined;
    return (node) => (collection === undefined || state.items[node]!.collectionId === collection) && (!seen || seen[node] === 1);
  }

  async explain(projectId: string, ruleId: string, item: string): Promise<ReplyOf<typeof explainCoverage>> {
    const state = await this.states.get(projectId);
    const rule = state.findRule(ruleId);
    if (!rule) throw new CoombError('not-found', `There is no coverage rule "${ruleId}".`);
    const node = getNode(state, item);
    const question = state.question(rule);
    const explanation = buildExplanation(state.graph, question, node);
    const coverage = state.coverage(rule);
    const usages = coverage instanceof UsageCoverage ? state.usages.asked(state.items[node]!.id) : [];
    const along = rule.along.map(({ linkKind, direction }) => {
      const kind = state.scheme.linkKinds.find((one) => one.id === linkKind);
      return kind ? phraseAt(kind, direction === 'out' ? 'from' : 'to') : linkKind;
    });
    const kinds = rule.reach.kinds.map((kind) => getKind(state.scheme, kind).label.toLowerCase());
    return {
      state: coverage.stateOf(node),
      usages: usages.map(({ path, number }) => {
        const { paths } = buildExplanation(state.graph, question, node, number);
        return {
          says: state.usages.sayPath(path),
          state: (coverage as UsageCoverage).stateIn(node, number),
          paths: paths.map((one) => ({ suspect: one.suspect, steps: one.nodes.slice(1).map((entry) => describeStep(state, entry)) })),
        };
      }),
      sentence: rule.sentence,
      paths: explanation.paths.map(({ nodes, suspect }) => ({ suspect, steps: nodes.slice(1).map((entry) => describeStep(state, entry)) })),
      ends: explanation.ends.map((entry) => state.brief(entry.node)),
      looksFor: `at least ${rule.atLeast} of: ${kinds.join(', ')}; along “${along.join('”, “')}”, through at most ${rule.steps} ${rule.steps === 1 ? 'link' : 'links'}`,
    };
  }

  async createWaiver(projectId: string, person: string, wanted: { item: string; rule: string; reason: string; until: string | null }): Promise<Waiver> {
    const row: WaiverValue = {
      id: this.clock.newId(),
      projectId,
      revision: 1,
      withdrawn: false,
      itemId: wanted.item,
      rule: wanted.rule,
      person,
      reason: wanted.reason,
      until: wanted.until,
      finding: null,
      approver: null,
    };
    await this.ledger.change(projectId, async (state) => {
      const item = state.items[getNode(state, wanted.item)]!;
      const rule = state.findRule(wanted.rule);
      if (!rule) throw new CoombError('not-found', `There is no coverage rule "${wanted.rule}".`);
      return { person, action: `Waive "${rule.label}" for ${item.reference}`, changes: [{ entity: 'waiver', before: null, after: row }] };
    });
    return describeWaiver(await this.states.get(projectId), row);
  }

  async withdrawWaiver(projectId: string, person: string, id: string): Promise<Waiver> {
    let after: WaiverValue | undefined;
    await this.ledger.change(projectId, async (state) => {
      const before = state.waivers.get(id);
      if (!before || before.withdrawn) throw new CoombError('not-found', 'This waiver is not there any more.');
      after = { ...before, withdrawn: true, revision: before.revision + 1 };
      return {
        person,
        action: `Take back the waiver for ${state.items[getNode(state, before.itemId)]!.reference}`,
        changes: [{ entity: 'waiver', before, after }],
      };
    });
    return describeWaiver(await this.states.get(projectId), after!);
  }
}

function describeStep(state: ProjectState, entry: Reached): { phrase: string; item: ReturnType<ProjectState['brief']>; usage: string | null } {
  const kind = state.scheme.linkKinds[state.graph.kind[entry.link]!]!;
  const end = state.graph.from[entry.link] === entry.before ? 'from' : 'to';
  const usage = state.linkUsage(entry.link);
  const only = usage?.from ?? usage?.to;
  return { phrase: phraseAt(kind, end), item: state.brief(entry.node), usage: only ? state.usages.say(only) : null };
}

/** Nothing where the scheme of that time had no such figure. */
function countThen(state: ProjectState, id: string, within: ((node: number) => boolean) | undefined): number | null {
  try {
    return countFigure(state, id, within).count;
  } catch (refusal) {
    if (refusal instanceof CoombError && refusal.code === 'not-found') return null;
    throw refusal;
  }
}
