/** Rows of an outline in reading order, as nodes, each with its row's parent row or -1. */
export interface RowOrder {
  nodes: Int32Array;
  rowOf: Int32Array;
  parent: Int32Array;
}

/**
 * The order with one more row, where only that row is new: before the first sibling that comes after it, else behind all that stand below its
 * parent. `comesAfter` says of a present sibling whether it comes after the new row; `range` are the rows to look among where it has no parent.
 */
export function insertRow(
  order: RowOrder,
  node: number,
  parentRow: number,
  range: { from: number; to: number },
  comesAfter: (sibling: number) => boolean,
): RowOrder {
  const { nodes, parent } = order;
  let at = parentRow < 0 ? range.from : parentRow + 1;
  let end = parentRow < 0 ? range.to : at;
  if (parentRow >= 0) while (end < nodes.length && parent[end]! >= parentRow) end++;
  // Most rows are added behind their siblings: the last one tells.
  let last = end - 1;
  while (last >= at && parent[last] !== parentRow) last--;
  if (last < at || !comesAfter(nodes[last]!)) at = end;
  else while (parent[at] !== parentRow || !comesAfter(nodes[at]!)) at++;
  const next: RowOrder = {
    nodes: insertAt(nodes, at, node),
    parent: insertAt(parent, at, parentRow),
    rowOf: new Int32Array(Math.max(order.rowOf.length, node + 1)).fill(-1),
  };
  next.rowOf.set(order.rowOf);
  for (let row = at; row < next.nodes.length; row++) {
    next.rowOf[next.nodes[row]!] = row;
    if (row > at && next.parent[row]! >= at) next.parent[row]!++;
  }
  return next;
}

function insertAt(column: Int32Array, at: number, value: number): Int32Array {
  const larger = new Int32Array(column.length + 1);
  larger.set(column.subarray(0, at));
  larger[at] = value;
  larger.set(column.subarray(at), at + 1);
  return larger;
}
