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
  const known = new Set(rows.map((row) => row.id));
  const children = new Map<string | null, T[]>();
  for (const row of rows) {
    const parent = row.parentId !== null && known.has(row.parentId) ? row.parentId : null;
    const list = children.get(parent);
    if (list) list.push(row);
    else children.set(parent, [row]);
  }
  for (const list of children.values()) list.sort(byRank);
  const placed: OutlinePlace<T>[] = [];
  const seen = new Set<string>();
  const place = (start: readonly T[]) => {
    const stack = start.toReversed().map((row) => ({ row, depth: 0 }));
    for (let next = stack.pop(); next; next = stack.pop()) {
      if (seen.has(next.row.id)) continue;
      seen.add(next.row.id);
      placed.push(next);
      const below = children.get(next.row.id) ?? [];
      for (let i = below.length - 1; i >= 0; i--) stack.push({ row: below[i]!, depth: next.depth + 1 });
    }
  };
  place(children.get(null) ?? []);
  for (const row of rows) if (!seen.has(row.id)) place([row]);
  return placed;
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
