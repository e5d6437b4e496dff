import { CoombError } from '@coomb/contract';
import { findLinkKind, phraseAt, type Scheme, writeUseTarget } from '@coomb/core';
import type { ReqifItem } from '@coomb/formats';
import type { ProjectState } from '../project-state/project-state.js';

/** A whole collection, or items of any. */
export type Wanted = { collection: string; partner?: string | undefined } | { items: readonly string[] };

/** What goes out into a file, without the items. */
export interface SceneHead {
  scheme: Scheme;
  /** Name of the file. */
  name: string;
  /** Kind of most items: the others say theirs. */
  kind: string;
}

export interface Scene extends SceneHead {
  items: ReqifItem[];
}

/** What the project in memory says of an item that goes out: the rest stands in its row. */
export type ScenePart = Pick<ReqifItem, 'id' | 'parent' | 'parentAt' | 'depth' | 'links' | 'ends'>;

/** Refuses a collection or items that are not there. Nodes in reading order. */
export function openScene(state: ProjectState, wanted: Wanted): { head: SceneHead; nodes: number[] } {
  const { scheme } = state;
  if ('items' in wanted) {
    const nodes = chooseNodes(state, wanted.items);
    return { head: { scheme, name: `${state.name}, ${wanted.items.length} chosen`, kind: commonKind(state, nodes) }, nodes };
  }
  const collection = state.contents.collections.find((one) => one.id === wanted.collection && !one.withdrawn);
  if (!collection) throw new CoombError('not-found', `There is no collection ${wanted.collection}; it may have been taken back.`);
  const nodes = Array.from(state.outline().nodes).filter((node) => state.items[node]!.collectionId === collection.id);
  return { head: { scheme, name: collection.name, kind: collection.kind }, nodes };
}

/** The items asked for with all that stand above them, in reading order. Refuses items that are not there. */
function chooseNodes(state: ProjectState, wanted: readonly string[]): number[] {
  const { nodes, rowOf } = state.outline();
  const chosen = new Set<number>();
  for (const id of wanted) {
    const node = state.nodeOf.get(id);
    if (node === undefined || rowOf[node]! < 0)
      throw new CoombError(
        'not-found',
        `${node === undefined ? 'One of the chosen items' : state.items[node]!.reference} is not there any more. Choose again.`,
      );
    for (let at: number | undefined = node; at !== undefined; ) {
      chosen.add(at);
      const up: string | null = state.items[at]!.parentId;
      at = up === null ? undefined : state.nodeOf.get(up);
    }
  }
  return Array.from(nodes).filter((node) => chosen.has(node));
}

function commonKind(state: ProjectState, nodes: readonly number[]): string {
  const count = new Map<string, number>();
  for (const { heading, kind } of nodes.map((node) => state.items[node]!)) if (!heading) count.set(kind, (count.get(kind) ?? 0) + 1);
  return [...count].toSorted((a, b) => b[1] - a[1])[0]?.[0] ?? state.items[nodes[0]!]!.kind;
}

/** Items that are described before others get their turn. */
const SLICE = 500;

/** Tells what the project in memory says of the items that go out, some hundred at a time, in their order. */
export class SceneReader {
  private readonly at: ReadonlyMap<string, number>;
  private readonly depths: number[] = [];
  private next = 0;

  constructor(
    state: ProjectState,
    private readonly nodes: readonly number[],
  ) {
    this.at = new Map(nodes.map((node, index) => [state.items[node]!.id, index]));
  }

  get isDone(): boolean {
    return this.next >= this.nodes.length;
  }

  /** The next items, as `state` has them: always of one and the same change. */
  peek(state: ProjectState): ScenePart[] {
    return this.nodes.slice(this.next, this.next + SLICE).map((node, index) => {
      const { id, parentId } = state.items[node]!;
      const parentAt = parentId === null ? -1 : (this.at.get(parentId) ?? -1);
      const depth = parentAt < 0 ? 0 : this.depths[parentAt]! + 1;
      this.depths[this.next + index] = depth;
      const ends = readEnds(state, node);
      const parent = parentId === null ? null : (state.items[state.nodeOf.get(parentId)!]?.reference ?? null);
      return { id, parent, parentAt, depth, ends, links: describeLinks(state, ends, this.at) };
    });
  }

  /** Goes on to the items after those that were told. */
  skip(): void {
    this.next += SLICE;
  }
}

/** Links downstream are told by their other ends, where those go out too: once is enough to bring them back. */
function describeLinks({ scheme }: ProjectState, ends: ReqifItem['ends'], at: ReadonlyMap<string, number>): ReqifItem['links'] {
  const links = new Map<string, ReqifItem['links'][number]>();
  for (const { linkKind, reversed, other, reference } of ends) {
    const kind = findLinkKind(scheme, linkKind)!;
    if (at.has(other) && (kind.upstream === 'to') === reversed) continue;
    const phrase = phraseAt(kind, reversed ? 'to' : 'from');
    const known = links.get(phrase);
    if (known) known.targets.push(reference);
    else links.set(phrase, { linkKind, reversed, phrase, targets: [reference] });
  }
  return [...links.values()];
}

/** References of the items on the path of a usage. */
function sayUse(state: ProjectState, usage: string | null | undefined): string[] | null {
  if (!usage) return null;
  return state.usages.pathOf(usage).map((id) => state.items[state.nodeOf.get(id) ?? -1]?.reference ?? '');
}

function readEnds(state: ProjectState, node: number): ReqifItem['ends'] {
  const { graph, scheme } = state;
  const read = (direction: 'out' | 'in') =>
    graph.findLinks(node, direction).flatMap((link) => {
      const end = direction === 'out' ? graph.to[link]! : graph.from[link]!;
      const other = state.items[end]!;
      if (other.withdrawn) return [];
      const usage = state.linkUsage(link);
      const [own, others] = direction === 'out' ? [usage?.from, usage?.to] : [usage?.to, usage?.from];
      const [ownUse, otherUse] = [sayUse(state, own), sayUse(state, others)];
      return [
        {
          ...{ linkKind: scheme.linkKinds[graph.kind[link]!]!.id, reversed: direction === 'in', other: other.id },
          reference: writeUseTarget({ target: other.reference, ownUse, otherUse }),
          ...(ownUse && { ownUse: ownUse.join('/') }),
          ...(otherUse && { otherUse: otherUse.join('/') }),
        },
      ];
    });
  return [...read('out'), ...read('in')];
}
