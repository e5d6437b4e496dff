import { setImmediate } from 'node:timers/promises';
import { CoombError } from '@coomb/contract';
import { findLinkKind, isSame, phraseAt, type Scheme } from '@coomb/core';
import type { ReqifItem } from '@coomb/formats';
import { valuesOf } from '../gather/import-again/exchange.js';
import type { ExportRow } from './exports.repo.js';
import type { ProjectState } from '../project-state/project-state.js';

/** A whole collection, or items of any. */
export type Wanted = { collection: string } | { items: readonly string[] };

/** What goes out into a file: plain values, which a worker can be given. */
export interface Scene {
  scheme: Scheme;
  /** Name of the file. */
  name: string;
  /** Kind of most items: the others say theirs. */
  kind: string;
  items: ReqifItem[];
}

/** Refuses a collection or items that are not there. `withChanges` notes what of each item differs from what was last exchanged. */
export async function openScene(
  state: ProjectState,
  wanted: Wanted,
  withChanges: boolean,
  findRows: (ids: readonly string[]) => Promise<ReadonlyMap<string, ExportRow>>,
): Promise<Scene> {
  const { scheme } = state;
  const nodes = 'items' in wanted ? chooseNodes(state, wanted.items) : nodesOf(state, wanted.collection);
  const items = await describe(state, nodes, await findRows(nodes.map((node) => state.items[node]!.id)), withChanges);
  if ('items' in wanted) return { scheme, name: `${state.name}, ${wanted.items.length} chosen`, kind: commonKind(items), items };
  const { name, kind } = state.collections.find((one) => one.id === wanted.collection)!;
  return { scheme, name, kind, items };
}

/** In reading order. Refuses a collection that is not there. */
function nodesOf(state: ProjectState, collection: string): number[] {
  if (!state.collections.some((one) => one.id === collection && !one.withdrawn))
    throw new CoombError('not-found', `There is no collection ${collection}; it may have been taken back.`);
  return Array.from(state.outline().nodes).filter((node) => state.items[node]!.collectionId === collection);
}

/** The items asked for with all that stand above them, in reading order. Refuses items that are not there. */
function chooseNodes(state: ProjectState, wanted: readonly string[]): number[] {
  const chosen = new Set<number>();
  for (const id of wanted) {
    const node = state.nodeOf.get(id);
    if (node === undefined || state.items[node]!.withdrawn)
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
  return Array.from(state.outline().nodes).filter((node) => chosen.has(node));
}

function commonKind(items: readonly ReqifItem[]): string {
  const count = new Map<string, number>();
  for (const item of items) if (!item.heading) count.set(item.kind, (count.get(item.kind) ?? 0) + 1);
  return [...count].toSorted((a, b) => b[1] - a[1])[0]?.[0] ?? items[0]!.kind;
}

/** Items that are described before others get their turn. */
const SLICE = 2000;
const NOTHING: ReadonlySet<string> = new Set();

async function describe(state: ProjectState, nodes: readonly number[], rows: ReadonlyMap<string, ExportRow>, withChanges: boolean): Promise<ReqifItem[]> {
  const at = new Map(nodes.map((node, index) => [state.items[node]!.id, index]));
  const depths: number[] = [];
  const items: ReqifItem[] = [];
  for (const [index, node] of nodes.entries()) {
    if (index % SLICE === SLICE - 1) await setImmediate();
    const row = rows.get(state.items[node]!.id)!;
    const parentAt = row.parentId === null ? -1 : (at.get(row.parentId) ?? -1);
    depths[index] = parentAt < 0 ? 0 : depths[parentAt]! + 1;
    const ends = readEnds(state, node);
    const links = new Map<string, ReqifItem['links'][number]>();
    for (const { linkKind, reversed, other, reference } of ends) {
      const kind = findLinkKind(state.scheme, linkKind)!;
      // Links downstream are told by their other ends, where those go out too: once is enough to bring them back.
      if (at.has(other) && (kind.upstream === 'to') === reversed) continue;
      const phrase = phraseAt(kind, reversed ? 'to' : 'from');
      const known = links.get(phrase);
      if (known) known.targets.push(reference);
      else links.set(phrase, { linkKind, reversed, phrase, targets: [reference] });
    }
    items.push({
      id: row.id,
      reference: row.reference,
      externalId: row.externalId,
      title: row.title,
      html: row.html,
      kind: row.kind,
      heading: row.heading,
      parent: row.parentId === null ? null : (state.items[state.nodeOf.get(row.parentId)!]?.reference ?? null),
      depth: depths[index]!,
      fields: row.fields,
      links: [...links.values()],
      changed: withChanges ? findChanged(row) : NOTHING,
      parentAt,
      ends,
    });
  }
  return items;
}

function readEnds(state: ProjectState, node: number): { linkKind: string; reversed: boolean; other: string; reference: string }[] {
  const { graph, scheme } = state;
  const read = (direction: 'out' | 'in') =>
    graph.findLinks(node, direction).flatMap((link) => {
      const end = direction === 'out' ? graph.to[link]! : graph.from[link]!;
      const other = state.items[end]!;
      return other.withdrawn
        ? []
        : [{ linkKind: scheme.linkKinds[graph.kind[link]!]!.id, reversed: direction === 'in', other: other.id, reference: other.reference }];
    });
  return [...read('out'), ...read('in')];
}

/** Values that differ from what was last exchanged. */
function findChanged(row: ExportRow): Set<string> {
  const now = valuesOf(row);
  const before = row.base?.values ?? {};
  const names = new Set([...Object.keys(now), ...Object.keys(before)]);
  return new Set([...names].filter((name) => !isSame(now[name] ?? null, before[name] ?? null)));
}
