import type { SourceCell, SourceTable } from '../source/document.js';
import { buildIdentifier, headerOf, type TableMeaning, usualIdentifier } from './document-recipe.js';

/** How a table reads when its rows are items. */
export interface ItemTable {
  /** What tables of this shape are known by. */
  header: string;
  /** Names of the columns; a name that stands twice is counted. */
  columns: string[];
  /** First row below the header. */
  first: number;
}

/** A label of a table that is one item, and the cell that holds its value. */
export interface CardPair {
  label: string;
  cell: SourceCell;
}

/** Label of a cell that goes over a whole card. */
export const ACROSS = 'across the table';
const MOST_HEADER_ROWS = 3;

/** Whether a text begins with a reference: as the recipe says, else as references usually look. */
export function buildReferenceTest(identifier: string): (text: string) => boolean {
  const match = buildIdentifier(identifier) ?? buildIdentifier(usualIdentifier)!;
  return (text) => match(text) !== undefined;
}

/** Cells by column, a spanning cell in its first column only. */
export function spread(cells: readonly SourceCell[]): readonly (SourceCell | undefined)[] {
  if (cells.every((cell) => cell.span === 1)) return cells;
  return cells.flatMap((cell) => [cell, ...new Array<undefined>(Math.max(0, cell.span - 1)).fill(undefined)]);
}

export function readItemTable(table: SourceTable, isReference: (text: string) => boolean): ItemTable {
  if (hasNoHeader(table, isReference)) {
    const width = widthOf(table.rows[0]!);
    return { header: `no header, ${width} columns`, columns: Array.from({ length: width }, (_, at) => `column ${at + 1}`), first: 0 };
  }
  const rows = countHeaderRows(table);
  const columns = countNames(nameColumns(table.rows.slice(0, rows)));
  return { header: rows === 1 ? headerOf(table.rows[0] ?? []) : columns.join(' | '), columns, first: rows };
}

/** The rows of the header: as many as the file says, else those that cells of the first row reach down into. */
function countHeaderRows({ rows, headerRows }: SourceTable): number {
  if (headerRows !== undefined) return Math.min(headerRows, MOST_HEADER_ROWS);
  if (!rows[0]?.some((cell) => cell.span > 1)) return 1;
  let count = 1;
  while (count < MOST_HEADER_ROWS && rows.length > count + 1 && rows[count]!.some((cell) => cell.continued)) count++;
  return count;
}

/** A table that starts at once with a reference has no header: in its first column, or in another one that goes on so. */
function hasNoHeader({ rows }: SourceTable, isReference: (text: string) => boolean): boolean {
  const at = rows[0]?.findIndex((cell) => isReference(cell.text)) ?? -1;
  if (at < 0 || rows[0]!.length < 2) return false;
  return at === 0 || (rows.length > 1 && rows.filter((row) => isReference(row[at]?.text ?? '')).length * 10 >= rows.length * 6);
}

function widthOf(cells: readonly SourceCell[]): number {
  return cells.reduce((sum, cell) => sum + cell.span, 0);
}

/** Words above one another, such as "Verification / Method"; a cell that goes over several columns names each of them. */
function nameColumns(rows: readonly SourceCell[][]): string[] {
  const names: string[][] = [];
  for (const row of rows) {
    let column = 0;
    for (const cell of row) {
      const words = cell.text.trim().replace(/\s+/g, ' ');
      for (let i = 0; i < cell.span; i++) {
        const name = (names[column++] ??= []);
        if (words && !name.includes(words)) name.push(words);
      }
    }
  }
  return Array.from(names, (name) => (name ?? []).join(' / '));
}

function countNames(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name) => {
    const count = (seen.get(name) ?? 0) + 1;
    seen.set(name, count);
    return count === 1 || !name ? name : `${name} (${count})`;
  });
}

/** A table as labels and values: two cells a pair, one or more pairs a row, cells that go over all of it by themselves. Undefined where a row is no such thing. */
export function readCard({ rows }: SourceTable): CardPair[] | undefined {
  const pairs: CardPair[] = [];
  for (const row of rows) {
    if (row.length === 1) pairs.push({ label: ACROSS, cell: row[0]! });
    else if (row.length % 2 === 0)
      for (let at = 0; at < row.length; at += 2) pairs.push({ label: row[at]!.text.trim().replace(/\s+/g, ' ').replace(/\s*:$/, ''), cell: row[at + 1]! });
    else return undefined;
  }
  return pairs;
}

/** Cards carry no header row: they are known by their labels. */
export function cardHeader(pairs: readonly CardPair[]): string {
  return [...new Set(pairs.map(({ label }) => label))].join(' | ');
}

/** What a recipe says of a table: by its header, by its labels, else by most of its labels, as cards leave out what they have nothing to say of. */
export function findTableMeaning(tables: readonly TableMeaning[], table: SourceTable, isReference: (text: string) => boolean): TableMeaning | undefined {
  const { header } = readItemTable(table, isReference);
  const pairs = readCard(table);
  const card = pairs && cardHeader(pairs);
  return (
    tables.find((one) => one.header === (one.use === 'fields' ? card : header)) ??
    tables.find((one) => one.header === header || one.header === card) ??
    (pairs && findLikeCard(tables, pairs))
  );
}

function findLikeCard(tables: readonly TableMeaning[], pairs: readonly CardPair[]): TableMeaning | undefined {
  const labels = new Set(pairs.map(({ label }) => label));
  let best: { table: TableMeaning; shared: number } | undefined;
  for (const table of tables) {
    if (table.use !== 'fields') continue;
    const shared = table.columns.filter(({ name }) => labels.has(name));
    const names = shared.some(({ meaning }) => meaning.as === 'reference' || meaning.as === 'title');
    if (names && shared.length * 2 >= labels.size && shared.length > (best?.shared ?? 1)) best = { table, shared: shared.length };
  }
  return best?.table;
}
