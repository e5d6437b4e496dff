/** A cell by its place. */
export interface Spot {
  row: number;
  column: number;
}
export interface Area {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

export const areaOf = (one: Spot, other: Spot): Area => ({
  top: Math.min(one.row, other.row),
  bottom: Math.max(one.row, other.row),
  left: Math.min(one.column, other.column),
  right: Math.max(one.column, other.column),
});

export const inArea = ({ top, bottom, left, right }: Area, row: number, column: number): boolean =>
  row >= top && row <= bottom && column >= left && column <= right;

interface Step {
  down?: number;
  right?: number;
  row?: number;
  column?: number;
}

/** Where a key leads: by so many cells, or to a row or column. */
export function steps(
  event: { key: string; ctrlKey: boolean; metaKey: boolean; altKey: boolean; shiftKey: boolean },
  page: number,
  size: { rows: number; columns: number },
): Step | undefined {
  if (event.altKey) return undefined;
  const far = event.ctrlKey || event.metaKey;
  const [lastRow, lastColumn] = [size.rows - 1, size.columns - 1];
  const keys: Record<string, Step> = {
    ArrowDown: far ? { row: lastRow } : { down: 1 },
    ArrowUp: far ? { row: 0 } : { down: -1 },
    ArrowRight: far ? { column: lastColumn } : { right: 1 },
    ArrowLeft: far ? { column: 0 } : { right: -1 },
    Home: far ? { row: 0, column: 0 } : { column: 0 },
    End: far ? { row: lastRow, column: lastColumn } : { column: lastColumn },
    PageDown: { down: page },
    PageUp: { down: -page },
    ...(!far && { Tab: { right: event.shiftKey ? -1 : 1 } }),
  };
  return Object.hasOwn(keys, event.key) ? keys[event.key] : undefined;
}

/** Cells of a clipboard as spreadsheets write them: tabs and lines, cells with either of these in quotes. */
export function readClipboard(text: string): string[][] {
  const rows: string[][] = [[]];
  let cell = '';
  let at = 0;
  const whole = text.replace(/\r\n?/g, '\n').replace(/\n$/, '');
  const end = () => {
    rows.at(-1)!.push(cell);
    cell = '';
  };
  while (at < whole.length) {
    if (cell === '' && whole[at] === '"') {
      const close = closingQuote(whole, at);
      if (close > 0) {
        cell = whole.slice(at + 1, close).replaceAll('""', '"');
        at = close + 1;
        continue;
      }
    }
    if (whole[at] === '\t') end();
    else if (whole[at] === '\n') {
      end();
      rows.push([]);
    } else cell += whole[at];
    at++;
  }
  end();
  return rows;
}

/** Where a quoted cell ends; −1 where what begins with a quote is none. */
function closingQuote(text: string, from: number): number {
  for (let at = from + 1; at < text.length; at++) {
    if (text[at] !== '"') continue;
    if (text[at + 1] === '"') at++;
    else return at + 1 === text.length || text[at + 1] === '\t' || text[at + 1] === '\n' ? at : -1;
  }
  return -1;
}

/** The same the other way. */
export const writeClipboard = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => row.map((cell) => (/[\t\n"]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join('\t')).join('\n');
