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
  const lines: number[] = [];
  const hiddenBy = new Int32Array(count).fill(-1);
  for (let i = 0; i < count; i++) {
    const parent = axis.parent[i]!;
    if (parent >= i) throw new RangeError(`Item ${i} stands before its parent ${parent}: an axis must be in outline order`);
    const hider = parent < 0 ? -1 : hiddenBy[parent]! >= 0 ? hiddenBy[parent]! : folded.has(parent) ? parent : -1;
    hiddenBy[i] = hider;
    if (hider < 0) {
      lineOf[i] = lines.length;
      lines.push(i);
    } else lineOf[i] = lineOf[hider]!;
  }
  const size = new Int32Array(lines.length);
  for (let i = 0; i < count; i++) size[lineOf[i]!]!++;
  return { lines: Int32Array.from(lines), lineOf, size };
}

/** Links between two axes: link i joins row item `row[i]` with column item `column[i]`. */
export interface MatrixLinks {
  row: Int32Array;
  column: Int32Array;
}

export interface MatrixCells {
  /** Number of links by `line of row * columns + line of column`; only cells that hold any. */
  counts: Map<number, number>;
  rowTotals: Int32Array;
  columnTotals: Int32Array;
  columns: number;
}

/** Rolls links up into the cells of two folded axes. */
export function buildCells(rows: FoldedAxis, columns: FoldedAxis, links: MatrixLinks): MatrixCells {
  const width = columns.lines.length;
  const counts = new Map<number, number>();
  const rowTotals = new Int32Array(rows.lines.length);
  const columnTotals = new Int32Array(width);
  for (let i = 0; i < links.row.length; i++) {
    const r = rows.lineOf[links.row[i]!]!;
    const c = columns.lineOf[links.column[i]!]!;
    const key = r * width + c;
    counts.set(key, (counts.get(key) ?? 0) + 1);
    rowTotals[r]!++;
    columnTotals[c]!++;
  }
  return { counts, rowTotals, columnTotals, columns: width };
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
