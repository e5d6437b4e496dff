import type { SheetMerge, SourceSheet } from '../source/document.js';

const HIGHEST_HEADER = 3;

/** Names of the columns: of a header over several rows, the words above one another, such as "Verification / Method". */
export function readHeader(sheet: SourceSheet, headerRow: number, headerRows = 1): string[] {
  const first = Math.max(0, headerRow - headerRows + 1);
  const rows = sheet.rows.slice(first, headerRow + 1);
  if (headerRows === 1) return (rows[0] ?? []).map((cell) => cell.trim());
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  const across = (sheet.merges ?? []).filter((merge) => merge.right > merge.left && merge.top <= headerRow && merge.bottom >= first);
  return Array.from({ length: width }, (_, column) => {
    const words = rows.map((row, at) => {
      const merge = across.find((one) => one.top <= first + at && first + at <= one.bottom && one.left <= column && column <= one.right);
      return (merge ? (sheet.rows[merge.top]?.[merge.left] ?? '') : (row[column] ?? '')).trim();
    });
    return [...new Set(words.filter(Boolean))].join(' / ');
  });
}

/** Over how many rows the header that ends in a row goes: as long as the row above holds words for several columns, or reaches down into it. */
export function countHeaderRows(sheet: SourceSheet, headerRow: number): number {
  let rows = 1;
  for (let above = headerRow - 1; above >= 0 && rows < HIGHEST_HEADER; above--, rows++) {
    const filled = sheet.rows[above]?.filter((cell) => cell.trim()).length ?? 0;
    const reaches = (sheet.merges ?? []).some((merge) => merge.top === above && merge.bottom > above && merge.bottom <= headerRow);
    const across = (sheet.merges ?? []).some((merge) => merge.top === above && merge.bottom === above && merge.right > merge.left);
    if (!reaches && !(across && filled > 1)) break;
  }
  return rows;
}

/** Answers what merged cells say of the rows below a header. */
export class MergedCells {
  /** Merges that reach down, by column. */
  private readonly down = new Map<number, SheetMerge[]>();
  /** Rows that one merged cell takes most of, by row. */
  private readonly bands = new Map<number, SheetMerge>();

  constructor(
    private readonly sheet: SourceSheet,
    private readonly width: number,
  ) {
    for (const merge of sheet.merges ?? []) {
      if (merge.bottom > merge.top) {
        const list = this.down.get(merge.left);
        if (list) list.push(merge);
        else this.down.set(merge.left, [merge]);
      } else if ((merge.right - merge.left + 1) * 2 > width && this.isAlone(merge)) this.bands.set(merge.top, merge);
    }
    for (const list of this.down.values()) list.sort((a, b) => a.top - b.top);
  }

  private isAlone({ top, left }: SheetMerge): boolean {
    return (this.sheet.rows[top] ?? []).every((cell, column) => column === left || !cell.trim());
  }

  /** First row of the merged cell that a cell goes on from; undefined where none does. */
  above(row: number, column: number): number | undefined {
    const list = this.down.get(column);
    if (!list) return undefined;
    let [low, high] = [0, list.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (list[middle]!.top <= row) low = middle;
      else high = middle - 1;
    }
    const merge = list[low]!;
    return merge.top < row && row <= merge.bottom ? merge.top : undefined;
  }

  /** Words of a row that one merged cell takes, or of one that has nothing else where cells cannot be merged: a section's title. */
  band(row: number): string | undefined {
    const merge = this.bands.get(row);
    if (merge) return this.sheet.rows[row]?.[merge.left]?.trim() || undefined;
    return this.sheet.dialect ? this.lonely(row) : undefined;
  }

  /** The only words of a row in its first columns, beside empty ones. */
  private lonely(row: number): string | undefined {
    const cells = this.sheet.rows[row] ?? [];
    if (this.width < 3) return undefined;
    let only = -1;
    for (let column = 0; column < cells.length; column++) {
      if (!cells[column]?.trim()) continue;
      if (only >= 0 || column > 1) return undefined;
      only = column;
    }
    if (only < 0) return undefined;
    const words = cells[only]!.trim();
    // A reference alone is an item without words, not a section.
    return /\p{L}{2}/u.test(words) && !/^\S*\d$/.test(words) ? words : undefined;
  }

  /** The cells of a row, with what reaches down into it from above. */
  fill(row: number): readonly string[] {
    const cells = this.sheet.rows[row]!;
    if (this.down.size === 0) return cells;
    const filled = [...cells];
    for (const column of this.down.keys()) {
      const top = this.above(row, column);
      if (top !== undefined && !filled[column]?.trim()) filled[column] = this.sheet.rows[top]?.[column] ?? '';
    }
    return Array.from(filled, (cell) => cell ?? '');
  }
}
