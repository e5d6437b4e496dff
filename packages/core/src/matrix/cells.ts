import type { FoldedAxis } from './fold.js';

/** What stands between two axes: entry i joins row item `row[i]` with column item `column[i]`, as mark `mark[i]` (an index below 31). */
export interface MatrixEntries {
  row: Int32Array;
  column: Int32Array;
  mark: Uint8Array;
  /** 1 where it is suspect. */
  suspect: Uint8Array;
}

/** What a cell holds: how many entries, which marks as bits, how many of them are suspect. */
export interface Cell {
  count: number;
  marks: number;
  suspect: number;
}

/** The cells of one line that hold anything, by column line, ascending. */
export interface LineCells {
  columns: Int32Array;
  counts: Int32Array;
  marks: Int32Array;
  suspects: Int32Array;
}

/** Entries in the order of their row, then of their column, so that any fold of the two axes reads them as ranges. */
export class MatrixCells {
  /** Columns of the entries in order, and their marks with a high bit where they are suspect: what is read in a row lies in a row. */
  private readonly column: Int32Array;
  private readonly look: Uint8Array;

  private constructor(
    /** Place of the first entry of each row item; one more at the end. */
    private readonly start: Int32Array,
    /** The entries, in order. */
    private readonly order: Int32Array,
    readonly entries: MatrixEntries,
    private readonly inColumn: Int32Array,
  ) {
    this.column = new Int32Array(order.length);
    this.look = new Uint8Array(order.length);
    for (let at = 0; at < order.length; at++) {
      const entry = order[at]!;
      this.column[at] = entries.column[entry]!;
      this.look[at] = entries.mark[entry]! | (entries.suspect[entry]! << 7);
    }
  }

  /** Linear time. Items of both axes are counted from 0; entries outside them are refused with a RangeError. */
  static build(rows: number, columns: number, entries: MatrixEntries): MatrixCells {
    const inColumn = new Int32Array(columns);
    const start = new Int32Array(rows + 1);
    for (let i = 0; i < entries.row.length; i++) {
      if (entries.row[i]! >= rows || entries.column[i]! >= columns)
        throw new RangeError(`Entry ${i} stands at ${entries.row[i]} × ${entries.column[i]}, outside ${rows} × ${columns}`);
      inColumn[entries.column[i]!]!++;
      start[entries.row[i]! + 1]!++;
    }
    for (let row = 0; row < rows; row++) start[row + 1]! += start[row]!;
    const fill = new Int32Array(columns + 1);
    for (let column = 0; column < columns; column++) fill[column + 1] = fill[column]! + inColumn[column]!;
    const byColumn = new Int32Array(entries.row.length);
    for (let i = 0; i < entries.row.length; i++) byColumn[fill[entries.column[i]!]!++] = i;
    const next = start.slice();
    const order = new Int32Array(entries.row.length);
    for (const entry of byColumn) order[next[entries.row[entry]!]!++] = entry;
    return new MatrixCells(start, order, entries, inColumn);
  }

  /** Entries at each item of an axis. */
  countRow(row: number): number {
    return this.countRows(row, row + 1);
  }

  countRows(row: number, end: number): number {
    return this.start[end]! - this.start[row]!;
  }

  countColumn(column: number): number {
    return this.inColumn[column]!;
  }

  /** Entries of some row items, in order: from `row` up to, not with, `end`. */
  entriesOf(row: number, end = row + 1): Int32Array {
    return this.order.subarray(this.start[row]!, this.start[end]!);
  }

  /** Tells each entry of some row items, from `row` up to, not with, `end`: its column, its mark and whether it is suspect. */
  visit(row: number, end: number, tell: (column: number, mark: number, suspect: number) => void): void {
    for (let at = this.start[row]!, last = this.start[end]!; at < last; at++) tell(this.column[at]!, this.look[at]! & 127, this.look[at]! >> 7);
  }

  /** Cells under a fold of both axes, which stand in outline order. A line is read when it is asked for, and kept. */
  fold(rows: FoldedAxis, columns: FoldedAxis): FoldedCells {
    return new FoldedCells(this, rows, columns);
  }
}

/** Item after the last that a line stands for. */
export function endOfLine({ lines, lineOf }: FoldedAxis, line: number): number {
  return line + 1 < lines.length ? lines[line + 1]! : lineOf.length;
}

export class FoldedCells {
  private readonly kept = new Map<number, LineCells>();
  private readonly counts: Int32Array;
  private readonly marks: Int32Array;
  private readonly suspects: Int32Array;

  constructor(
    private readonly cells: MatrixCells,
    private readonly rows: FoldedAxis,
    private readonly columns: FoldedAxis,
  ) {
    this.counts = new Int32Array(columns.lines.length);
    this.marks = new Int32Array(columns.lines.length);
    this.suspects = new Int32Array(columns.lines.length);
  }

  row(line: number): LineCells {
    let found = this.kept.get(line);
    if (!found) {
      found = this.read(line);
      this.kept.set(line, found);
    }
    return found;
  }

  at(row: number, column: number): Cell | undefined {
    const { columns, counts, marks, suspects } = this.row(row);
    let [low, high] = [0, columns.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (columns[middle]! < column) low = middle + 1;
      else high = middle;
    }
    return columns[low] === column ? { count: counts[low]!, marks: marks[low]!, suspect: suspects[low]! } : undefined;
  }

  rowTotal(line: number): number {
    return this.cells.countRows(this.rows.lines[line]!, endOfLine(this.rows, line));
  }

  columnTotal(line: number): number {
    let total = 0;
    for (let item = this.columns.lines[line]!, end = endOfLine(this.columns, line); item < end; item++) total += this.cells.countColumn(item);
    return total;
  }

  private read(line: number): LineCells {
    const { counts, marks, suspects } = this;
    const { lineOf } = this.columns;
    const touched: number[] = [];
    this.cells.visit(this.rows.lines[line]!, endOfLine(this.rows, line), (column, mark, suspect) => {
      const at = lineOf[column]!;
      if (counts[at] === 0) touched.push(at);
      counts[at]!++;
      marks[at]! |= 1 << mark;
      suspects[at]! += suspect;
    });
    const columns = Int32Array.from(touched).sort();
    const found: LineCells = {
      columns,
      counts: columns.map((at) => counts[at]!),
      marks: columns.map((at) => marks[at]!),
      suspects: columns.map((at) => suspects[at]!),
    };
    for (const at of touched) counts[at] = marks[at] = suspects[at] = 0;
    return found;
  }
}
