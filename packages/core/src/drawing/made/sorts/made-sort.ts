import type { MadeGround } from '../made-ground.js';
import type { MadeDefinition, MadeGraph, MadeSort } from '../made-graph.js';

/** A sort of drawing of ours: what it is called, what it must be about, and how it follows from the project. */
export interface MadeSortOf {
  sort: MadeSort;
  label: string;
  explains: string;
  /** A component, any item with something below it, or a collection as well. */
  about: 'component' | 'item' | 'scope';
  hasLevels: boolean;
  /** Nothing where what it is about is not there any more. `trace` is built from its own search, not here. */
  build: (ground: MadeGround, definition: MadeDefinition) => MadeGraph | undefined;
}

/** Items of a scope in reading order: all below an item with it, all of a collection, or the whole project. */
export function findScope(ground: MadeGround, about: string): Set<number> | undefined {
  if (about === '') return new Set(ground.nodes());
  const collection = ground.collections.findIndex(({ id }) => id === about);
  if (collection >= 0) return new Set(ground.nodes().filter((node) => ground.collectionOf(node) === collection));
  const root = findItem(ground, about);
  if (root === undefined) return undefined;
  const found = new Set<number>();
  const open = [root];
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    if (found.has(node)) continue;
    found.add(node);
    open.push(...ground.childrenOf(node));
  }
  return found;
}

export const findItem = (ground: MadeGround, id: string): number | undefined => ground.nodes().find((node) => ground.idOf(node) === id);
