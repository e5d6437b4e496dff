import type { OutlineReply } from '@coomb/contract';

/** The outline with some of its items only, and whatever these stand in. */
export function filterOutline(outline: OutlineReply, nodes: ReadonlySet<number>): OutlineReply {
  const isKept = new Uint8Array(outline.node.length);
  outline.node.forEach((node, row) => {
    if (nodes.has(node)) for (let at = row; at >= 0 && !isKept[at]; at = outline.parent[at]!) isKept[at] = 1;
  });
  const rows = [...isKept.keys()].filter((row) => isKept[row]);
  const placeOf = new Map(rows.map((row, place) => [row, place]));
  const take = <Value>(column: readonly Value[]) => rows.map((row) => column[row]!);
  const { seq, life, day, kinds, collections, parent, ...columns } = outline;
  const kept = Object.fromEntries(Object.entries(columns).map(([name, column]) => [name, column.length === 0 ? column : take(column as readonly unknown[])]));
  return { ...outline, ...kept, parent: take(parent).map((row) => (row < 0 ? -1 : placeOf.get(row)!)) };
}
