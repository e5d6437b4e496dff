/** Which rows of a tree are in sight: elements in the order of their file, `parent` before what it holds. */
export interface TreeRow {
  /** Index of the element. */
  at: number;
  depth: number;
  holds: boolean;
  open: boolean;
}

export function childrenByParent(parent: readonly number[]): Map<number, number[]> {
  const children = new Map<number, number[]>();
  parent.forEach((up, at) => {
    const list = children.get(up);
    if (list) list.push(at);
    else children.set(up, [at]);
  });
  return children;
}

export function buildTreeRows(children: ReadonlyMap<number, readonly number[]>, unfolded: ReadonlySet<number>): TreeRow[] {
  const rows: TreeRow[] = [];
  // Without recursion: files may be deep.
  const stack = [...(children.get(-1) ?? [])].reverse().map((at) => ({ at, depth: 0 }));
  for (let next = stack.pop(); next; next = stack.pop()) {
    const { at, depth } = next;
    const own = children.get(at) ?? [];
    const open = unfolded.has(at);
    rows.push({ at, depth, holds: own.length > 0, open });
    if (open) for (let index = own.length - 1; index >= 0; index--) stack.push({ at: own[index]!, depth: depth + 1 });
  }
  return rows;
}

/** What stands above an element, outermost first. */
export function pathOf(parent: readonly number[], at: number): number[] {
  const path: number[] = [];
  for (let up = parent[at] ?? -1; up >= 0; up = parent[up]!) path.unshift(up);
  return path;
}
