import type { Scheme } from '../scheme/scheme.js';
import type { SourceTable } from '../source/document.js';
import type { Meaning, TableMeaning } from './document-recipe.js';
import { proposeByValues } from './propose-by-values.js';
import { proposeMeaning } from './propose-meaning.js';
import { ACROSS, cardHeader, type CardPair, type ItemTable, readCard, readItemTable, spread } from './table-shape.js';

/** Shorter cells hold names and values. */
const SHORTEST_TEXT = 30;

/** What a table most likely is: rows of items, one item by label and value, else text. Undefined for tables that hold nothing. */
export function proposeTable(scheme: Scheme, kind: string, table: SourceTable, isReference: (text: string) => boolean): TableMeaning | undefined {
  if (table.rows.length === 0) return undefined;
  const shape = readItemTable(table, isReference);
  const pairs = readCard(table);
  const card = pairs && proposeCard(scheme, kind, pairs, isReference);
  const meant = card?.columns.filter(({ meaning }) => meaning.as !== 'ignore') ?? [];
  const isCard = meant.some(({ meaning }) => meaning.as === 'reference') && meant.length > 1;
  // A card whose first label happens to name a column is told from rows of items by the labels below.
  if (card && isCard && meant.length > shape.columns.filter((name) => proposeMeaning(scheme, kind, name).as !== 'ignore').length) return card;
  if (table.rows.length <= shape.first) return undefined;
  const columns = proposeColumns(scheme, kind, table, shape, isReference);
  const byRow = columns.some(({ meaning }) => meaning.as === 'reference') && columns.some(({ meaning }) => meaning.as === 'text' || meaning.as === 'title');
  if (byRow) return { header: shape.header, use: 'items', columns };
  return card && isCard ? card : { header: shape.header, use: 'text', columns };
}

/** The same table for a use that the person chose. */
export function proposeTableFor(
  scheme: Scheme,
  kind: string,
  table: SourceTable,
  use: TableMeaning['use'],
  isReference: (text: string) => boolean,
): TableMeaning {
  const pairs = use === 'fields' ? readCard(table) : undefined;
  if (pairs) return proposeCard(scheme, kind, pairs, isReference);
  const shape = readItemTable(table, isReference);
  const columns = proposeColumns(scheme, kind, table, shape, isReference);
  return { header: shape.header, use, columns: use === 'items' ? withText(columns, table, shape) : columns };
}

/** Rows that are to be items need words: those of the column with the longest, where no other has any. */
function withText(columns: TableMeaning['columns'], table: SourceTable, shape: ItemTable): TableMeaning['columns'] {
  if (columns.some(({ meaning }) => meaning.as === 'text' || meaning.as === 'title')) return columns;
  const rows = table.rows.slice(shape.first).map(spread);
  const sizeOf = (at: number) => rows.reduce((sum, cells) => sum + (cells[at]?.text.length ?? 0), 0);
  const [longest] = columns.map(({ meaning }, at) => ({ at, size: meaning.as === 'ignore' ? sizeOf(at) : 0 })).sort((a, b) => b.size - a.size);
  return columns.map((column, at) => (at === longest?.at && longest.size > 0 ? { ...column, meaning: { as: 'text' } } : column));
}

/** Cards that share their reference and most labels are of one shape, which has the labels of all. */
export function joinCards(tables: readonly TableMeaning[]): TableMeaning[] {
  const joined: TableMeaning[] = [];
  for (const table of tables) {
    const like = table.use === 'fields' ? joined.find((one) => one.use === 'fields' && isAlike(one, table)) : undefined;
    if (!like) {
      joined.push({ ...table, columns: [...table.columns] });
      continue;
    }
    like.columns.push(...table.columns.filter(({ name }) => !like.columns.some((one) => one.name === name)));
    like.header = like.columns.map(({ name }) => name).join(' | ');
  }
  return joined;
}

function isAlike(one: TableMeaning, other: TableMeaning): boolean {
  const names = new Set(one.columns.map(({ name }) => name));
  const shared = other.columns.filter(({ name }) => names.has(name));
  return shared.some(({ meaning }) => meaning.as === 'reference') && shared.length * 2 >= other.columns.length;
}

function proposeCard(scheme: Scheme, kind: string, pairs: readonly CardPair[], isReference: (text: string) => boolean): TableMeaning {
  const labels = [...new Set(pairs.map(({ label }) => label))];
  const meaningOf = (label: string): Meaning => {
    if (label !== ACROSS) return proposeMeaning(scheme, kind, label);
    const own = pairs.filter((pair) => pair.label === ACROSS);
    return own.some(({ cell }) => isReference(cell.text))
      ? { as: 'reference' }
      : { as: own.some(({ cell }) => cell.text.length > SHORTEST_TEXT) ? 'text' : 'ignore' };
  };
  return { header: cardHeader(pairs), use: 'fields', columns: labels.map((name) => ({ name, meaning: meaningOf(name) })) };
}

/** Meaning by the name of each column; without names by what stands in it. */
function proposeColumns(scheme: Scheme, kind: string, table: SourceTable, shape: ItemTable, isReference: (text: string) => boolean): TableMeaning['columns'] {
  if (shape.first > 0) {
    const named = shape.columns.map((name) => {
      const parts = name.split(' / ');
      const meanings = [name, parts.join(' '), parts.at(-1)!].map((words) => proposeMeaning(scheme, kind, words));
      return { name, meaning: meanings.find(({ as }) => as !== 'ignore') ?? ({ as: 'ignore' } as const) };
    });
    const below = table.rows.slice(shape.first).map(spread);
    return proposeByValues(named, (column) => below.map((cells) => cells[column]?.text ?? ''), { isReference });
  }
  const rows = table.rows.map(spread);
  const sizes = shape.columns.map((_, at) => rows.reduce((sum, cells) => sum + (cells[at]?.text.length ?? 0), 0) / rows.length);
  const reference = shape.columns.findIndex((_, at) => isReference(rows[0]![at]?.text ?? ''));
  const longest = sizes.reduce((best, size, at) => (at !== reference && (best < 0 || size > sizes[best]!) ? at : best), -1);
  return shape.columns.map((name, at) => ({ name, meaning: at === reference ? { as: 'reference' } : at === longest ? { as: 'text' } : { as: 'ignore' } }));
}
