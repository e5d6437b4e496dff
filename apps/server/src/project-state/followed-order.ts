import { insertRow } from '@coomb/core';
import type { LightItem } from './light-item.js';
import { type OutlineOrder, orderItems } from './outline-order.js';

interface Ground {
  items: readonly LightItem[];
  nodeOf: ReadonlyMap<string, number>;
  collections: () => readonly { id: string }[];
}

/** The reading order of a project: built when first asked for, then following what can be followed row by row. */
export class FollowedOrder {
  constructor(
    private readonly ground: Ground,
    private order?: OutlineOrder,
  ) {}

  now(): OutlineOrder {
    const { items, nodeOf, collections } = this.ground;
    this.order ??= orderItems(items, collections(), nodeOf);
    return this.order;
  }

  /** The order as far as it is known, for somebody who goes another way with it. */
  snapshot(): OutlineOrder | undefined {
    // Columns are never changed in place; ranges are.
    return this.order && { ...this.order, ranges: new Map([...this.order.ranges].map(([id, range]) => [id, { ...range }])) };
  }

  forget(): void {
    this.order = undefined;
  }

  /** One new item at its place among its siblings moves nothing else; whatever else changes the order lets it be built anew. */
  follow(before: LightItem | undefined, node: number): void {
    if (!this.order) return;
    const { items, nodeOf } = this.ground;
    const item = items[node]!;
    const { parentId, rank, withdrawn, collectionId } = item;
    if (before && before.parentId === parentId && before.rank === rank && before.withdrawn === withdrawn && before.collectionId === collectionId) return;
    if (before?.withdrawn && withdrawn) return;
    const parentRow = parentId === null ? -1 : (this.order.rowOf[nodeOf.get(parentId) ?? -1] ?? -1);
    const { ranges } = this.order;
    const range = ranges.get(collectionId);
    if (before || withdrawn || !range || (parentId !== null && parentRow < 0)) {
      this.order = undefined;
      return;
    }
    const comesAfter = (sibling: number) => {
      const other = items[sibling]!;
      return other.rank > rank || (other.rank === rank && other.id > item.id);
    };
    this.order = { ...insertRow(this.order, node, parentRow, range, comesAfter), ranges };
    for (const other of ranges.values()) {
      if (other.from > range.from) other.from++;
      if (other.to >= range.to) other.to++;
    }
  }
}
