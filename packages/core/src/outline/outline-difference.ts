/** Columns of an outline, row by row. `parent` is a row, or -1; all others but `node` are values of the row. */
export interface OutlineColumns {
  node: number[];
  id: string[];
  reference: string[];
  title: string[];
  clause: string[];
  kind: number[];
  collection: number[];
  parent: number[];
  heading: number[];
  state: number[];
  up: number[];
  down: number[];
  suspect: number[];
  gaps: number[];
}

/** What changed between two outlines of one project: where rows stand, and the rows that are new or say something else. */
export interface OutlineDifference {
  /** Rows taken out at a place and those put there instead, as nodes; null where all stand as they did. */
  order: { at: number; remove: number; insert: number[] } | null;
  /** As the columns of an outline, but `parent` names a node, or -1. */
  rows: OutlineColumns;
}

const VALUES = ['id', 'reference', 'title', 'clause', 'kind', 'collection', 'heading', 'state', 'up', 'down', 'suspect', 'gaps'] as const;

/** The one place where two orders differ, as a splice; null where they are the same. */
export function findSplice(before: ArrayLike<number>, after: ArrayLike<number>): OutlineDifference['order'] {
  const most = Math.min(before.length, after.length);
  let at = 0;
  while (at < most && before[at] === after[at]) at++;
  if (at === before.length && at === after.length) return null;
  let same = 0;
  while (same < most - at && before[before.length - 1 - same] === after[after.length - 1 - same]) same++;
  return { at, remove: before.length - at - same, insert: Array.prototype.slice.call(after, at, after.length - same) as number[] };
}

/** An outline after a difference. Columns in which nothing changed are the same arrays; nothing is changed in place. */
export function applyOutlineDifference<O extends OutlineColumns>(outline: O, { order, rows }: OutlineDifference): O {
  const changedAt = new Map(rows.node.map((node, at) => [node, at]));
  const next: OutlineColumns = { ...outline };
  if (!order) {
    const rowOf = new Map<number, number>();
    outline.node.forEach((node, row) => {
      if (changedAt.has(node)) rowOf.set(node, row);
    });
    // Columns hold one sort of value each; read and written by the same name.
    for (const column of VALUES) next[column] = replace(outline[column] as string[], rows[column] as string[], rows.node, rowOf) as never;
    return { ...outline, ...next, parent: moveParents(outline, outline.node, rows, changedAt) };
  }
  next.node = outline.node.slice(0, order.at).concat(order.insert, outline.node.slice(order.at + order.remove));
  const rowBefore = new Map(outline.node.map((node, row) => [node, row]));
  for (const column of VALUES) {
    // Numbers of clauses are told only where there are any.
    if (column === 'clause' && outline.clause.length === 0 && rows.clause.length === 0) continue;
    next[column] = next.node.map((node) => {
      const at = changedAt.get(node);
      return at === undefined ? outline[column][rowBefore.get(node)!]! : rows[column][at]!;
    }) as never;
  }
  return { ...outline, ...next, parent: moveParents(outline, next.node, rows, changedAt, rowBefore) };
}

/** The column with the values of changed rows; the same array where none of them differs. */
function replace(before: string[], values: string[], nodes: readonly number[], rowOf: ReadonlyMap<number, number>): string[] {
  if (before.length === 0) return before;
  let after = before;
  nodes.forEach((node, at) => {
    const row = rowOf.get(node);
    if (row === undefined || before[row] === values[at]) return;
    if (after === before) after = before.slice();
    after[row] = values[at]!;
  });
  return after;
}

function moveParents(
  before: OutlineColumns,
  nodes: readonly number[],
  rows: OutlineColumns,
  changedAt: ReadonlyMap<number, number>,
  rowBefore: ReadonlyMap<number, number> = new Map(before.node.map((node, row) => [node, row])),
): number[] {
  const parentNode = (node: number) => {
    const at = changedAt.get(node);
    if (at !== undefined) return rows.parent[at]!;
    const up = before.parent[rowBefore.get(node)!]!;
    return up < 0 ? -1 : before.node[up]!;
  };
  const rowAfter = nodes === before.node ? rowBefore : new Map(nodes.map((node, row) => [node, row]));
  const parent = nodes.map((node) => rowAfter.get(parentNode(node)) ?? -1);
  return parent.length === before.parent.length && parent.every((row, at) => row === before.parent[at]) ? before.parent : parent;
}
