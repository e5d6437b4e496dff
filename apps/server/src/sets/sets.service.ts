import { type BodyOf, type Collection, CoombError, type editCollection, type planMerge, type planSet as planSetEndpoint, type ReplyOf } from '@coomb/contract';
import { labelOf, type Starter, starters } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { assertOffered } from '../items/items.service.js';
import type { Change, CollectionValue, SetValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { LedgerService } from '../changes/ledger.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { buildNewParts } from '../project-state/scheme-parts.js';
import { assertFree } from './assert-free.js';
import { buildCollections, planSet, type SetPlan } from './build-set.js';

interface SetWish {
  name: string;
  starter: string;
  initials: string;
}
type PlannedSet = ReplyOf<typeof planSetEndpoint>;
interface MergeStep {
  from: CollectionValue;
  /** The collection that takes its items; null where it moves as it is. */
  into: CollectionValue | null;
}

/** Collections of a project and the sets that they belong to. */
@Injectable()
export class SetsService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Collections and first outline of a starter for a project that has just been made. */
  start(project: string, person: string, starter: Starter): Promise<unknown> {
    return this.ledger.change(project, async (state) => {
      const plan = planSet({ state }, starter, { name: '', initials: '' });
      return { person, action: `Start with "${starter.label}"`, changes: this.build(state, person, plan, null) };
    });
  }

  async plan(project: string, wish: SetWish): Promise<PlannedSet> {
    const plan = planSet({ state: await this.states.get(project) }, getStarter(wish.starter), wish);
    return {
      collections: plan.collections.map(({ name, prefix, kind, wanted, shared }) => ({
        name,
        prefix,
        kind,
        sections: shared ? 0 : wanted.outline.length,
        shared: shared !== null,
      })),
      parts: plan.parts.map(({ sort, theirs }) => ({ sort, label: labelOf(theirs) ?? '' })),
    };
  }

  async create(project: string, person: string, wish: SetWish): Promise<{ id: string; name: string; revision: number }> {
    const starter = getStarter(wish.starter);
    let row!: SetValue;
    await this.ledger.change(project, async (state) => {
      assertFree(state.contents, wish.name);
      const rank = Math.max(-1, ...state.contents.sets.map((set) => set.rank)) + 1;
      row = { id: this.clock.newId(), projectId: project, revision: 1, withdrawn: false, name: wish.name, rank };
      const plan = planSet({ state }, starter, wish);
      return { person, action: `Add the set ${wish.name}`, changes: [{ entity: 'set', before: null, after: row }, ...this.build(state, person, plan, row.id)] };
    });
    return { id: row.id, name: row.name, revision: row.revision };
  }

  async edit(
    project: string,
    person: string,
    id: string,
    wish: { name?: string | undefined; before?: string | null | undefined },
  ): Promise<{ id: string; name: string; revision: number }> {
    let after!: SetValue;
    await this.ledger.change(project, async (state) => {
      const before = getSet(state, id);
      if (wish.name !== undefined && wish.name.toLowerCase() !== before.name.toLowerCase()) assertFree(state.contents, wish.name);
      after = { ...before, name: wish.name ?? before.name, revision: before.revision + 1 };
      if (wish.before !== undefined) after.rank = rankBefore(state.contents.liveSets(), id, wish.before);
      if (after.name === before.name && after.rank === before.rank) return { person, action: '', changes: [] };
      const action = after.name === before.name ? `Move the set ${before.name}` : `Rename the set ${before.name} to ${after.name}`;
      return { person, action, changes: [{ entity: 'set', before, after }] };
    });
    return { id, name: after.name, revision: after.revision };
  }

  async planMerge(project: string, id: string, into: string | null): Promise<ReplyOf<typeof planMerge>> {
    const state = await this.states.get(project);
    const counts = new Map(state.contents.describe(state.items).map((one) => [one.id, one.items]));
    return {
      steps: findSteps(state, id, into).map((step) => ({ collection: step.from.name, items: counts.get(step.from.id) ?? 0, into: step.into?.name ?? null })),
    };
  }

  /** Like collections become one, with the items of the merged behind those that were there; others move over as they are. The set is then withdrawn. */
  merge(project: string, person: string, id: string, into: string | null): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(project, async (state) => {
      const set = getSet(state, id);
      const changes: Change[] = [];
      for (const { from, into: target } of findSteps(state, id, into)) {
        if (!target) {
          changes.push({ entity: 'collection', before: from, after: { ...from, setId: into, revision: from.revision + 1 } });
          continue;
        }
        changes.push(...(await this.moveItems(state, person, from, target)));
        changes.push({ entity: 'collection', before: from, after: { ...from, withdrawn: true, revision: from.revision + 1 } });
      }
      changes.push({ entity: 'set', before: set, after: { ...set, withdrawn: true, revision: set.revision + 1 } });
      const name = into === null ? 'the whole project' : getSet(state, into).name;
      return { person, action: `Merge the set ${set.name} into ${name}`, changes };
    });
  }

  async editCollection(project: string, person: string, id: string, wish: NonNullable<BodyOf<typeof editCollection>>): Promise<Collection> {
    await this.ledger.change(project, async (state) => {
      const before = getCollection(state, id);
      const after = { ...before, name: wish.name ?? before.name, prefix: wish.prefix ?? before.prefix, kind: wish.kind ?? before.kind };
      if (after.kind !== before.kind) assertOffered(state.scheme, after.kind);
      if (wish.set !== undefined) after.setId = wish.set === null ? null : getSet(state, wish.set).id;
      if (wish.before !== undefined) after.rank = rankBefore(state.contents.liveCollections(), id, wish.before);
      if (JSON.stringify(after) === JSON.stringify(before)) return { person, action: '', changes: [] };
      const action = after.name === before.name ? `Change the collection ${before.name}` : `Rename the collection ${before.name} to ${after.name}`;
      return { person, action, changes: [{ entity: 'collection', before, after: { ...after, revision: before.revision + 1 } }] };
    });
    const { contents, items } = await this.states.get(project);
    return contents.describe(items).find((one) => one.id === id)!;
  }

  /** Withdraws a collection with all its items; their links stay with them, as history. */
  withdrawCollection(project: string, person: string, id: string): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(project, async (state) => {
      const before = getCollection(state, id);
      const ids = state.items.flatMap((item) => (item.collectionId === id && !item.withdrawn ? [item.id] : []));
      const items = await this.rows.findRows(project, 'item', ids);
      const now = this.clock.now().toISOString();
      const changes: Change[] = [...items.values()].map((item) => ({
        entity: 'item',
        before: item,
        after: { ...item, withdrawn: true, revision: item.revision + 1, changedAt: now, changedBy: person },
      }));
      changes.push({ entity: 'collection', before, after: { ...before, withdrawn: true, revision: before.revision + 1 } });
      return { person, action: `Withdraw the collection ${before.name}`, changes };
    });
  }

  private build(state: ProjectState, person: string, plan: SetPlan, setId: string | null): Change[] {
    const context = { state, person, now: this.clock.now().toISOString(), newId: this.clock.newId };
    return [...buildNewParts(state.id, state.schemeNow.parts(), plan.parts, this.clock.newId), ...buildCollections(context, plan, setId)];
  }

  private async moveItems(state: ProjectState, person: string, from: CollectionValue, target: CollectionValue): Promise<Change[]> {
    const ids = state.items.flatMap((item) => (item.collectionId === from.id ? [item.id] : []));
    const top = state.items.filter((item) => item.collectionId === target.id && item.parentId === null);
    const behind = Math.max(0, ...top.map((item) => item.rank)) + 1;
    const least = Math.min(0, ...state.items.filter((item) => item.collectionId === from.id && item.parentId === null).map((item) => item.rank));
    const rows = await this.rows.findRows(state.id, 'item', ids);
    const now = this.clock.now().toISOString();
    return [...rows.values()].map((before) => ({
      entity: 'item',
      before,
      after: {
        ...before,
        collectionId: target.id,
        rank: before.parentId === null ? behind + before.rank - least : before.rank,
        ...{ revision: before.revision + 1, changedAt: now, changedBy: person },
      },
    }));
  }
}

export function getStarter(id: string): Starter {
  const starter = starters.find((one) => one.id === id);
  if (!starter) throw new CoombError('input-invalid', `There is no starter "${id}"; there are ${starters.map((one) => one.id).join(', ')}.`);
  return starter;
}

function getSet(state: ProjectState, id: string): SetValue {
  const set = state.contents.sets.find((one) => one.id === id && !one.withdrawn);
  if (!set) throw new CoombError('not-found', `There is no set ${id} in ${state.name}.`);
  return set;
}

function getCollection(state: ProjectState, id: string): CollectionValue {
  const collection = state.contents.collections.find((one) => one.id === id && !one.withdrawn);
  if (!collection) throw new CoombError('not-found', `There is no collection ${id} in ${state.name}.`);
  return collection;
}

/** A rank right before another of an order, or behind all. */
function rankBefore(order: readonly { id: string; rank: number }[], id: string, before: string | null): number {
  const others = order.filter((one) => one.id !== id).sort((a, b) => a.rank - b.rank);
  const at = before === null ? others.length : others.findIndex((one) => one.id === before);
  if (at < 0) throw new CoombError('not-found', 'What it is to stand before is not there any more.');
  const [below, above] = [others[at - 1]?.rank, others[at]?.rank];
  if (below === undefined) return (above ?? 1) - 1;
  return above === undefined ? below + 1 : (below + above) / 2;
}

function findSteps(state: ProjectState, id: string, into: string | null): MergeStep[] {
  getSet(state, id);
  if (into !== null) getSet(state, into);
  if (into === id) throw new CoombError('input-invalid', 'A set cannot be merged into itself.');
  const all = state.contents.liveCollections();
  return all
    .filter((one) => one.setId === id)
    .map((from) => ({ from, into: all.find((one) => one.setId === into && one.kind === from.kind && one.holds === from.holds) ?? null }));
}
