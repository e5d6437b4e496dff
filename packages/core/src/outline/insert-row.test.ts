import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/random.js';
import { insertRow, type RowOrder } from './insert-row.js';
import { buildOutline } from './order.js';

interface Row {
  id: string;
  node: number;
  parentId: string | null;
  rank: number;
}

function orderOf(rows: readonly Row[], count: number): RowOrder {
  const placed = buildOutline(rows).map(({ row }) => row);
  const rowOf = new Int32Array(count).fill(-1);
  placed.forEach((row, at) => {
    rowOf[row.node] = at;
  });
  const nodeOf = new Map(rows.map((row) => [row.id, row.node]));
  return {
    nodes: Int32Array.from(placed, (row) => row.node),
    rowOf,
    parent: Int32Array.from(placed, (row) => (row.parentId === null ? -1 : rowOf[nodeOf.get(row.parentId)!]!)),
  };
}

describe('insertRow', () => {
  it.each([1, 2, 3, 4])('gives what an order built anew gives, whatever is added where (seed %i)', (seed) => {
    const random = seeded(seed);
    const rows: Row[] = [];
    let order = orderOf(rows, 0);
    for (let node = 0; node < 120; node++) {
      const above = random() < 0.3 || rows.length === 0 ? null : rows[Math.floor(random() * rows.length)]!;
      const row = { id: `i${String(node).padStart(3, '0')}`, node, parentId: above?.id ?? null, rank: Math.floor(random() * 6) };
      rows.push(row);
      const comesAfter = (sibling: number) => rows[sibling]!.rank > row.rank || (rows[sibling]!.rank === row.rank && rows[sibling]!.id > row.id);
      order = insertRow(order, node, above ? order.rowOf[above.node]! : -1, { from: 0, to: order.nodes.length }, comesAfter);
      expect(order).toEqual(orderOf(rows, node + 1));
    }
  });
});
