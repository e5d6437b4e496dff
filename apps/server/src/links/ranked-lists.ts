import type { KnownLinks, RankedItem } from '@coomb/core';
import { createHash } from 'node:crypto';
import type { ItemReadingService } from '../items/item-reading.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import type { RankTask } from './rank-links.worker.js';

/** Items of two collections by their places in them; the same list twice where one is linked within itself. */
export interface RankedLists {
  left: readonly number[];
  right: readonly number[];
  /** Nodes that are not to be linked with each node. */
  refused?: ReadonlyMap<number, ReadonlySet<number>>;
}

/** What the items of two lists say, and where they stand. */
export async function readLists(reading: ItemReadingService, state: ProjectState, { left, right }: RankedLists): Promise<NonNullable<RankTask['items']>> {
  const read = async (nodes: readonly number[]): Promise<RankedItem[]> => {
    const texts = await reading.readTexts(state, nodes);
    const at = new Map(nodes.map((node, index) => [state.items[node]!.id, index]));
    return nodes.map((node, index) => ({ ...texts[index]!, parent: at.get(state.items[node]!.parentId ?? '') ?? -1 }));
  };
  return { left: await read(left), right: right === left ? 'the same' : await read(right) };
}

/** Another one when an item came, went, moved or was reworded. */
export function sayTexts(state: ProjectState, { left, right }: RankedLists): string {
  const hash = createHash('sha1');
  for (const node of [...left, -1, ...right]) hash.update(node < 0 ? '|' : `${node} ${state.items[node]!.meaningSeq} ${state.items[node]!.parentId ?? ''};`);
  return hash.digest('hex');
}

export const neighboursOf = ({ graph }: ProjectState, node: number): number[] => [
  ...graph.findLinks(node, 'out').map((link) => graph.to[link]!),
  ...graph.findLinks(node, 'in').map((link) => graph.from[link]!),
];

/**
 * Links of any kind between two collections, whichever way; within one from where they begin, or each would stand for its own reverse. And all others
 * around the items, by their nodes.
 */
export function findLinks(state: ProjectState, { left, right, refused }: RankedLists): KnownLinks {
  const { graph } = state;
  const at = new Map(right.map((node, index) => [node, index]));
  const around = { left: left.map((node) => neighboursOf(state, node)), right: [] as number[][] };
  around.right = right === left ? around.left : right.map((node) => neighboursOf(state, node));
  const endsOf = (node: number, index: number) => (right === left ? graph.findLinks(node, 'out').map((link) => graph.to[link]!) : around.left[index]!);
  const links = left.flatMap((node, from) => [...new Set(endsOf(node, from))].flatMap((other) => (at.has(other) ? [[from, at.get(other)!] as const] : [])));
  const told = left.flatMap((node, from) => [...(refused?.get(node) ?? [])].flatMap((other) => (at.has(other) ? [[from, at.get(other)!] as const] : [])));
  return { links, around, refused: told };
}
