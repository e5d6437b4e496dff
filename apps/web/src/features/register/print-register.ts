import type { RegisterRow } from '@coomb/contract';
import { escapeText, printPage } from '../../shared/print-page';
import type { GridColumn } from './GridRow';
import { textOf } from './use-cells';

interface Wish {
  title: string;
  /** Where it was looked, and what passes. */
  says: string;
  columns: readonly GridColumn[];
  rows: readonly RegisterRow[];
  /** A name before the row at a place, where a group begins. */
  groupAt: ReadonlyMap<number, string>;
  valueAt: (row: RegisterRow, column: number) => RegisterRow['cells'][number];
}

const style = `@page{size:landscape;margin:12mm}
body{font:9pt/1.35 Arial,Helvetica,sans-serif;color:#111;margin:0}
h1{font-size:13pt;margin:0 0 1mm}p{margin:0 0 3mm;color:#555}
table{border-collapse:collapse;width:100%;table-layout:fixed}thead{display:table-header-group}
th,td{border:.3pt solid #999;padding:1mm 1.5mm;text-align:left;vertical-align:top;overflow-wrap:anywhere}
th{background:#eee}tr{break-inside:avoid}.group td{background:#f5f5f5;font-weight:bold}.number{text-align:right}`;

/** A register as a page to print: its head on each sheet, columns as wide as on screen, by share. */
export function pageOfRegister({ title, says, columns, rows, groupAt, valueAt }: Wish): string {
  const total = columns.reduce((sum, { width }) => sum + width, 0);
  const widths = columns.map(({ width }) => `<col style="width:${((width / total) * 100).toFixed(1)}%">`).join('');
  const body = rows.map((row, at) => {
    const group = groupAt.get(at);
    const head = group === undefined ? '' : `<tr class="group"><td colspan="${columns.length}">${escapeText(group)}</td></tr>`;
    const cells = columns.map((_, column) => {
      const value = valueAt(row, column);
      return `<td${typeof value === 'number' ? ' class="number"' : ''}>${escapeText(textOf(value))}</td>`;
    });
    return `${head}<tr>${cells.join('')}</tr>`;
  });
  return `<h1>${escapeText(title)}</h1><p>${escapeText(says)}</p><table>${widths}<thead><tr>${columns.map(({ name }) => `<th>${escapeText(name)}</th>`).join('')}</tr></thead><tbody>${body.join('')}</tbody></table>`;
}

export const printRegister = (wish: Wish): void => printPage(wish.title, style, pageOfRegister(wish));
