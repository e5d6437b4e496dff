import type { Brief, RegisterRow, RegisterValue } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import type { GroupedRows } from '../../shared/ui/grouped-rows';
import { notify, notifyError } from '../../shared/ui/notices';
import type { GridColumn } from './GridRow';
import { type Area, readClipboard, type Spot, writeClipboard } from './selection';
import { textOf, type Write } from './use-cells';

/** Rows that are pasted or copied at once. */
const MOST_AT_ONCE = 5_000;
const WINDOW = 500;

interface Wish {
  area: Area;
  rows: GroupedRows;
  /** A row that was read, by its place among all rows. */
  itemAt: (index: number) => RegisterRow | undefined;
  columns: readonly GridColumn[];
  valueAt: (row: RegisterRow, column: number) => RegisterValue;
  write: (writes: readonly Write[]) => void;
  /** Items by their places in the list without groups. */
  read: (offset: number, limit: number) => Promise<readonly RegisterRow[]>;
  /** Told where what was pasted begins and ends. */
  onPasted: (from: Spot, to: Spot) => void;
}

/** What is done with a range of cells: copied, pasted over, filled. Rows that were never in sight are read first. */
export function useRange({ area, rows, itemAt, columns, valueAt, write, read, onPasted }: Wish) {
  /** Rows of a stretch of the list, also those that were never in sight. */
  const readRows = async (first: number, last: number): Promise<(RegisterRow | undefined)[]> => {
    const known = Array.from({ length: last - first + 1 }, (_, by) => itemAt(first + by));
    const missing = known.flatMap((row, by) => {
      const one = row ? undefined : rows.rowAt(first + by);
      return one && 'link' in one ? [{ by, place: one.link }] : [];
    });
    if (missing.length === 0) return known;
    const [from, to] = [missing[0]!.place, missing.at(-1)!.place];
    const unseen = new Map<number, RegisterRow>();
    for (let offset = from; offset <= to; offset += WINDOW) {
      const found = await read(offset, Math.min(WINDOW, to - offset + 1));
      found.forEach((row, by) => unseen.set(offset + by, row));
    }
    for (const { by, place: link } of missing) known[by] = unseen.get(link);
    return known;
  };
  const within = (count: number) => {
    if (count <= MOST_AT_ONCE) return true;
    notify(`At most ${figure(MOST_AT_ONCE)} rows are taken at once.`, 'info');
    return false;
  };
  const asText = (from: readonly (RegisterRow | undefined)[], { left, right }: Area) =>
    writeClipboard(from.map((row) => (row ? columns.slice(left, right + 1).map((_, by) => textOf(valueAt(row, left + by))) : [''])));
  const copy = (of: Area): string | undefined => {
    const stretch = Array.from({ length: Math.min(of.bottom, rows.count - 1) - of.top + 1 }, (_, by) => itemAt(of.top + by));
    if (stretch.every((row) => row !== undefined)) return asText(stretch, of);
    if (!within(stretch.length)) return undefined;
    readRows(of.top, Math.min(of.bottom, rows.count - 1)).then(async (all) => {
      await navigator.clipboard.writeText(asText(all, of));
      notify(`${counted(all.length, 'row')} copied.`);
    }, notifyError);
    return undefined;
  };
  const paste = async (text: string) => {
    const cells = readClipboard(text);
    const single = cells.length === 1 && cells[0]!.length === 1;
    const height = single ? area.bottom - area.top + 1 : cells.length;
    const breadth = single ? area.right - area.left + 1 : Math.max(...cells.map((row) => row.length));
    const last = Math.min(rows.count - 1, area.top + height - 1);
    if (!within(last - area.top + 1)) return;
    const onto = await readRows(area.top, last);
    const computed = new Set<string>();
    const writes: Write[] = [];
    for (const [down, row] of onto.entries())
      for (let right = 0; right < breadth; right++) {
        const column = columns[area.left + right];
        const said = single ? cells[0]![0]! : cells[down]?.[right];
        if (!row || row.isContext || !column || said === undefined) continue;
        if (!column.field) computed.add(column.name);
        else if (said !== textOf(valueAt(row, area.left + right))) writes.push({ row, field: column.field, text: said });
      }
    if (computed.size > 0) notify(`Not pasted, for it is computed: ${[...computed].join(', ')}.`, 'info');
    if (cells.length > onto.length) notify(`${figure(cells.length - onto.length)} of the pasted rows stand below the last row, and are left out.`, 'info');
    write(writes);
    onPasted({ row: area.top, column: area.left }, { row: last, column: Math.min(columns.length - 1, area.left + breadth - 1) });
  };
  const fill = async (textFor: (column: number, first: RegisterRow) => string, from: number) => {
    if (!within(area.bottom - area.top + 1)) return;
    const onto = await readRows(area.top, Math.min(area.bottom, rows.count - 1));
    const first = onto[0];
    if (!first) return;
    const writes = onto.slice(from).flatMap((row) =>
      columns.slice(area.left, area.right + 1).flatMap((column, by): Write[] => {
        if (!row || row.isContext || !column.field) return [];
        const text = textFor(area.left + by, first);
        return text === textOf(valueAt(row, area.left + by)) ? [] : [{ row, field: column.field, text }];
      }),
    );
    write(writes);
  };
  const chosenRows = Array.from({ length: area.bottom - area.top + 1 }, (_, by) => area.top + by).filter(
    (row) => row < rows.count && 'link' in rows.rowAt(row),
  );
  /** Items of the rows of the range, each once. */
  const readChosen = async (): Promise<Brief[]> => {
    if (chosenRows.length === 0 || !within(chosenRows.length)) return [];
    const all = await readRows(area.top, Math.min(area.bottom, rows.count - 1));
    // An item that is used in several places is several rows.
    return [...new Map(all.flatMap((row) => (row && !row.isContext ? [[row.item.id, row.item] as const] : []))).values()];
  };
  return { chosenRows, readChosen, copy, paste, fill };
}
