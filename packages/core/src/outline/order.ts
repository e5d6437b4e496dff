/** A row of an outline as stored: who its parent is, and a rank among its siblings. */
export interface OutlineRow {
  id: string;
  parentId: string | null;
  rank: number;
}

export interface OutlinePlace<T> {
  row: T;
  depth: number;
}

/**
 * Rows in reading order with their depth. Rows whose parent is missing, or who are their own ancestors, come at the top level
 * at the end: nothing is ever lost from view.
 */
export function buildOutline<T extends OutlineRow>(rows: readonly T[]): OutlinePlace<T>[] {
  const indexOf = new Map(rows.map((row, index) => [row.id, index]));
  const parent = Int32Array.from(rows, (row) => (row.parentId === null ? -1 : (indexOf.get(row.parentId) ?? -1)));
  const { start, child } = buildChildren(rows, parent);
  const placed: OutlinePlace<T>[] = [];
  const seen = new Uint8Array(rows.length);
  const stack: number[] = [];
  const depths: number[] = [];
  const push = (list: number) => {
    const depth = list === 0 ? 0 : depths[depths.length - 1]! + 1;
    depths.pop();
    for (let i = start[list + 1]! - 1; i >= start[list]!; i--) {
      stack.push(child[i]!);
      depths.push(depth);
    }
  };
  const walk = () => {
    for (let index = stack.pop(); index !== undefined; index = stack.pop()) {
      if (seen[index]) {
        depths.pop();
        continue;
      }
      seen[index] = 1;
      placed.push({ row: rows[index]!, depth: depths[depths.length - 1]! });
      push(index + 1);
    }
  };
  push(0);
  walk();
  for (let index = 0; index < rows.length; index++) {
    if (seen[index]) continue;
    stack.push(index);
    depths.push(0);
    walk();
  }
  return placed;
}

/** Children of each row, in order, as slices of one list: those of row i stand from `start[i + 1]`, those of no row from `start[0]`. */
function buildChildren(rows: readonly OutlineRow[], parent: Int32Array): { start: Uint32Array; child: Uint32Array } {
  const order = [...rows.keys()].sort((a, b) => byRank(rows[a]!, rows[b]!));
  const start = new Uint32Array(rows.length + 2);
  for (const up of parent) start[up + 2]!++;
  for (let i = 1; i < start.length; i++) start[i]! += start[i - 1]!;
  const fill = start.slice();
  const child = new Uint32Array(rows.length);
  for (const index of order) child[fill[parent[index]! + 1]!++] = index;
  return { start, child };
}

function byRank(a: OutlineRow, b: OutlineRow): number {
  return a.rank - b.rank || (a.id < b.id ? -1 : 1);
}

/** A rank that stands between two siblings' ranks (either may be missing); undefined when they are too close to part. */
export function buildRankBetween(before: number | undefined, after: number | undefined): number | undefined {
  if (before === undefined && after === undefined) return 1024;
  if (before === undefined) return after! - 1024;
  if (after === undefined) return before + 1024;
  const middle = (before + after) / 2;
  return middle > before && middle < after ? middle : undefined;
}

/** Whether `id` stands at or below `ancestor`: a move there would tie a knot. */
export function isWithin(parentOf: (id: string) => string | null, id: string, ancestor: string): boolean {
  const seen = new Set<string>();
  for (let at: string | null = id; at !== null && !seen.has(at); at = parentOf(at)) {
    if (at === ancestor) return true;
    seen.add(at);
  }
  return false;
}
