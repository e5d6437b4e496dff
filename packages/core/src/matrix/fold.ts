/** One side of a trace matrix: items in outline order. `parent[i]` is an earlier index, or -1. */
export interface Axis {
  parent: Int32Array;
}

/** What is shown of an axis: each line stands for an item and, when folded, for all below it. */
export interface FoldedAxis {
  /** Item index of each line shown. */
  lines: Int32Array;
  /** For each item, the line that stands for it. */
  lineOf: Int32Array;
  /** How many items each line stands for. */
  size: Int32Array;
}

/** Lines of an axis when the given items are folded. Linear time. */
export function foldAxis(axis: Axis, folded: ReadonlySet<number>): FoldedAxis {
  const count = axis.parent.length;
  const lineOf = new Int32Array(count);
  const lines = new Int32Array(count);
  let shown = 0;
  const hiddenBy = new Int32Array(count).fill(-1);
  const isFolded = new Uint8Array(count);
  for (const one of folded) isFolded[one] = 1;
  for (let i = 0; i < count; i++) {
    const parent = axis.parent[i]!;
    if (parent >= i) throw new RangeError(`Item ${i} stands before its parent ${parent}: an axis must be in outline order`);
    const hider = parent < 0 ? -1 : hiddenBy[parent]! >= 0 ? hiddenBy[parent]! : isFolded[parent] ? parent : -1;
    hiddenBy[i] = hider;
    if (hider < 0) {
      lineOf[i] = shown;
      lines[shown++] = i;
    } else lineOf[i] = lineOf[hider]!;
  }
  const size = new Int32Array(shown);
  for (let i = 0; i < count; i++) size[lineOf[i]!]!++;
  return { lines: lines.slice(0, shown), lineOf, size };
}

/** Items for which `keep` holds, with their ancestors, so that the outline stays readable. Returns old indexes in order. */
export function narrowAxis(axis: Axis, keep: (item: number) => boolean): Int32Array {
  const wanted = new Uint8Array(axis.parent.length);
  for (let i = axis.parent.length - 1; i >= 0; i--) {
    if (keep(i)) wanted[i] = 1;
    const parent = axis.parent[i]!;
    if (wanted[i] && parent >= 0) wanted[parent] = 1;
  }
  return Int32Array.from([...wanted.keys()].filter((i) => wanted[i] === 1));
}
