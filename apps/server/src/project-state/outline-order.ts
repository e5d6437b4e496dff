import { addToGroup, buildOutline } from '@coomb/core';
import type { LightItem } from './light-item.js';

export interface OutlineOrder {
  /** Nodes in reading order, withdrawn ones left out. */
  nodes: Int32Array;
  /** Row of each node, or -1. */
  rowOf: Int32Array;
  /** Row of each row's parent, or -1. */
  parent: Int32Array;
  /** Rows of each collection that has any, in the order in which they stand. */
  ranges: Map<string, { from: number; to: number }>;
}

/** Present items in reading order, collection by collection. `nodeOf` has the node of each item by its id. */
export function orderItems(items: readonly LightItem[], collections: readonly { id: string }[], nodeOf: ReadonlyMap<string, number>): OutlineOrder {
  const byCollection = new Map<string, LightItem[]>();
  for (const item of items) if (!item.withdrawn) addToGroup(byCollection, item.collectionId, item);
  const nodes: number[] = [];
  const parent: number[] = [];
  const rowOf = new Int32Array(items.length).fill(-1);
  const ranges: OutlineOrder['ranges'] = new Map();
  for (const { id } of collections) {
    const from = nodes.length;
    for (const { row } of buildOutline(byCollection.get(id) ?? [])) {
      const node = nodeOf.get(row.id)!;
      const up = row.parentId === null ? undefined : nodeOf.get(row.parentId);
      parent.push(up === undefined ? -1 : rowOf[up]!);
      rowOf[node] = nodes.length;
      nodes.push(node);
    }
    if (nodes.length > from) ranges.set(id, { from, to: nodes.length });
  }
  return { nodes: Int32Array.from(nodes), rowOf, parent: Int32Array.from(parent), ranges };
}
