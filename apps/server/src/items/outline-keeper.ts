import type { OutlineSince } from '@coomb/contract';
import { findSplice, type OutlineColumns, type VerificationState, verificationStates } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import type { LightItem } from '../project-state/light-item.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { countGaps, countLinks } from './outline.js';

/** Outlines that a page may be behind by and still be told what changed. */
const MOST_KEPT = 24;
/** A difference of more rows than this share of all is no shorter than the whole. */
const LARGEST = 0.4;

/** What an outline says of each node, as it was told last. */
interface Told {
  /** Change and day that it is of. */
  of: string;
  seq: number;
  lists: string;
  nodes: Int32Array;
  items: readonly LightItem[];
  clauses: readonly string[];
  states: Uint8Array;
  up: Uint32Array;
  down: Uint32Array;
  suspect: Uint32Array;
  gaps: Uint8Array;
  parents: Int32Array;
}

/** One outline that pages may still show, and which nodes came to be something else in the next. */
interface Step {
  of: string;
  nodes: Int32Array;
  changed: readonly number[];
}

interface Kept {
  state: ProjectState;
  told: Told;
  steps: Step[];
}

/** Tells pages what changed in the outline since the one that they show: counted once a change, however many ask. */
@Injectable()
export class OutlineKeeper {
  private readonly kept = new Map<string, Kept>();

  constructor(@Inject(ProjectStates) private readonly states: ProjectStates) {}

  /** The difference from the outline of a change and day; `whole` where it is too far back, of another life, or no shorter than all of it. */
  async tellSince(project: string, { seq, day, life }: { seq: number; day: string; life: string }): Promise<OutlineSince> {
    const state = await this.states.get(project);
    const kept = this.follow(state);
    const { told, steps } = kept;
    const of = nameOf(seq, day);
    const whole: OutlineSince = { life: state.life, seq: state.seq, day: state.day, whole: true, difference: null };
    if (life !== state.life) return whole;
    const at = of === told.of ? steps.length : steps.findIndex((step) => step.of === of);
    if (at < 0) return whole;
    const changed = new Set(steps.slice(at).flatMap((step) => [...step.changed]));
    if (changed.size > Math.max(200, told.nodes.length * LARGEST)) return whole;
    const order = at === steps.length ? null : findSplice(steps[at]!.nodes, told.nodes);
    // What is not in the outline any more is told by its order.
    const nodes = [...changed].filter((node) => !told.items[node]!.withdrawn);
    return { ...whole, whole: false, difference: { order, rows: buildRows(state, told, nodes) } };
  }

  /** An outline that was told whole: pages may ask from it on. */
  noteTold(state: ProjectState): void {
    this.follow(state);
  }

  private follow(state: ProjectState): Kept {
    const before = this.kept.get(state.id);
    const of = nameOf(state.seq, state.day);
    if (before?.told.of === of && before.state === state) return before;
    const told = readAll(state, of);
    // Lists that are counted otherwise, or a project that was read anew: nothing of before can be gone on from.
    if (!before || before.state !== state || before.told.lists !== told.lists) {
      const kept = { state, told, steps: [] };
      this.kept.set(state.id, kept);
      return kept;
    }
    before.steps.push({ of: before.told.of, nodes: before.told.nodes, changed: compare(before.told, told) });
    if (before.steps.length > MOST_KEPT) before.steps.shift();
    before.told = told;
    return before;
  }
}

const nameOf = (seq: number, day: string) => `${seq} ${day}`;
const stateCodes = Object.fromEntries(verificationStates.map((name, index) => [name, index])) as Record<VerificationState, number>;

function readAll(state: ProjectState, of: string): Told {
  const { nodes, parent } = state.outline();
  const { items } = state;
  const links = countLinks(state);
  const states = new Uint8Array(items.length);
  const all = state.allStates();
  for (let node = 0; node < items.length; node++) states[node] = stateCodes[all[node]!];
  const parents = new Int32Array(items.length).fill(-1);
  for (let row = 0; row < nodes.length; row++) if (parent[row]! >= 0) parents[nodes[row]!] = nodes[parent[row]!]!;
  return {
    ...{ of, seq: state.seq, nodes, parents, states, ...links, gaps: countGaps(state) },
    lists: JSON.stringify([state.scheme.kinds.map((kind) => kind.id), state.contents.liveCollections().map((collection) => collection.id), state.hasClauses]),
    items: items.slice(),
    clauses: state.hasClauses ? items.map((_, node) => state.clauseOf(node)) : [],
  };
}

/** Nodes that came to be something else, or are new. */
function compare(before: Told, after: Told): number[] {
  const changed: number[] = [];
  for (let node = 0; node < after.items.length; node++) {
    const was = before.items[node];
    const is = after.items[node]!;
    const same =
      (was === is || (was !== undefined && saysSame(was, is))) &&
      before.states[node] === after.states[node] &&
      before.gaps[node] === after.gaps[node] &&
      before.up[node] === after.up[node] &&
      before.down[node] === after.down[node] &&
      before.suspect[node] === after.suspect[node] &&
      before.parents[node] === after.parents[node] &&
      before.clauses[node] === after.clauses[node];
    if (!same) changed.push(node);
  }
  return changed;
}

function saysSame(one: LightItem, other: LightItem): boolean {
  return (
    one.reference === other.reference &&
    one.title === other.title &&
    one.kind === other.kind &&
    one.collectionId === other.collectionId &&
    one.heading === other.heading &&
    one.withdrawn === other.withdrawn
  );
}

function buildRows(state: ProjectState, told: Told, nodes: readonly number[]): OutlineColumns {
  const kinds = new Map(state.scheme.kinds.map((kind, index) => [kind.id, index]));
  const collections = new Map(state.contents.liveCollections().map((collection, index) => [collection.id, index]));
  const column = <T>(read: (node: number) => T): T[] => nodes.map(read);
  return {
    node: [...nodes],
    id: column((node) => told.items[node]!.id),
    reference: column((node) => told.items[node]!.reference),
    title: column((node) => told.items[node]!.title),
    clause: told.clauses.length > 0 ? column((node) => told.clauses[node]!) : [],
    kind: column((node) => kinds.get(told.items[node]!.kind) ?? -1),
    collection: column((node) => collections.get(told.items[node]!.collectionId) ?? -1),
    parent: column((node) => told.parents[node]!),
    heading: column((node) => (told.items[node]!.heading ? 1 : 0)),
    state: column((node) => told.states[node]!),
    up: column((node) => told.up[node]!),
    down: column((node) => told.down[node]!),
    suspect: column((node) => told.suspect[node]!),
    gaps: column((node) => told.gaps[node]!),
  };
}
