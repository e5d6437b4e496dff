import { groupBy } from '../group-by.js';
import { findFieldOfRole, findKindOfRole, getUsualKind, linkKindsOfRole } from '../scheme/roles.js';
import type { Kind, Scheme } from '../scheme/scheme.js';
import type { SourceSheet } from '../source/document.js';
import type { Meaning } from './document-recipe.js';
import { proposeByValues } from './propose-by-values.js';
import { proposeMeaning } from './propose-meaning.js';
import { KindNames } from './row-kind.js';
import { countHeaderRows, MergedCells, readHeader } from './sheet-layout.js';
import type { SheetRecipe } from './sheet-recipe.js';

/**
 * A first recipe for a workbook: the sheet and row with the most column names that mean something. Without a kind it is guessed:
 * columns that only tests have make tests, a sheet named for needs holds needs, others requirements.
 */
export function proposeSheetRecipe(scheme: Scheme, sheets: readonly SourceSheet[], kind?: string): SheetRecipe {
  if (kind !== undefined) return proposeColumns(scheme, sheets, kind);
  const said = findSaidKinds(scheme, sheets);
  if (said) {
    const recipe = proposeColumns(scheme, sheets, said.kind);
    return { ...recipe, columns: recipe.columns.map((column) => (column.name === said.column ? { ...column, meaning: { as: 'kind' } } : column)) };
  }
  const test = findKindOfRole(scheme, 'test');
  const asTests = test && proposeColumns(scheme, sheets, test.id);
  if (asTests && holdsTests(scheme, test, asTests)) return asTests;
  const usual = getUsualKind(scheme).id;
  const recipe = proposeColumns(scheme, sheets, usual);
  const need = findKindOfRole(scheme, 'need')?.id ?? usual;
  return need !== usual && /need/i.test(recipe.sheet) ? proposeColumns(scheme, sheets, need) : recipe;
}

/** Whether columns tell of tests: of steps, of what is expected, of what is verified. */
function holdsTests(scheme: Scheme, test: Kind, { columns }: SheetRecipe): boolean {
  const fields = (['steps', 'testKind', 'expected'] as const).map((role) => findFieldOfRole(test, role)?.id);
  const links = linkKindsOfRole(scheme, 'verifies').map((kind) => kind.id);
  const hasWords = columns.some(({ meaning }) => ['reference', 'title', 'text'].includes(meaning.as));
  const isOfTests = ({ meaning }: SheetRecipe['columns'][number]) =>
    (meaning.as === 'field' && fields.includes(meaning.field)) || (meaning.as === 'link' && links.includes(meaning.linkKind));
  return hasWords && columns.some(isOfTests);
}

/** A column that says the kind of each row, and the kind that most of them are. */
function findSaidKinds(scheme: Scheme, sheets: readonly SourceSheet[]): { column: string; kind: string } | undefined {
  const names = new KindNames(scheme);
  for (const { rows } of sheets)
    for (const [header, row] of rows.slice(0, 20).entries()) {
      const at = row.findIndex((cell) => /^(?:kind|type|(?:object|item) type)$/i.test(cell.trim()));
      if (at < 0) continue;
      const values = rows.slice(header + 1).flatMap((below) => below[at]?.trim() || []);
      const known = values.flatMap((value) => names.find(value, '') ?? []);
      const kinds = groupBy(
        known.flatMap((one) => (one.role === 'item' ? one.kind : [])),
        (kind) => kind,
      );
      const [most] = [...kinds].sort((a, b) => b[1].length - a[1].length);
      if (most && known.length * 2 > values.length) return { column: row[at]!.trim(), kind: most[0] };
    }
  return undefined;
}

function proposeColumns(scheme: Scheme, sheets: readonly SourceSheet[], kind: string): SheetRecipe {
  let best: SheetRecipe = { name: 'Proposed from the sheet', sheet: sheets[0]?.name ?? '', headerRow: 0, kind, columns: [] };
  let bestScore = -1;
  for (const sheet of sheets)
    sheet.rows.slice(0, 20).forEach((row, headerRow) => {
      if (row.length === 0) return;
      const headerRows = countHeaderRows(sheet, headerRow);
      const columns = readHeader(sheet, headerRow, headerRows).map((name) => ({ name, meaning: proposeColumn(scheme, kind, name) }));
      const score = columns.filter(({ meaning }) => meaning.as !== 'ignore').length + (sheet.rows.length > headerRow + 1 ? 0.5 : 0);
      // A header reaches as far down as its merged cells do, though its lower names may mean nothing here.
      const goesOn = best.sheet === sheet.name && best.headerRow === headerRow - headerRows + 1 && headerRows > 1 && score === bestScore;
      if (score <= bestScore && !goesOn) return;
      bestScore = score;
      const merged = new MergedCells(sheet, columns.length);
      // Rows across are few: where most rows are like that, they are items without values.
      const across = sheet.rows.filter((_, below) => below > headerRow && merged.band(below) !== undefined).length;
      const bands = across > 0 && (!sheet.dialect || across * 3 < sheet.rows.length - headerRow);
      const { name } = best;
      const { dialect } = sheet;
      best = { name, kind, sheet: sheet.name, headerRow, columns, ...(dialect && { dialect }), ...(headerRows > 1 && { headerRows }), ...(bands && { bands }) };
    });
  const sheet = sheets.find((one) => one.name === best.sheet);
  if (!sheet) return best;
  const columns = proposeSheetColumns(scheme, kind, sheet, best.headerRow, best.headerRows);
  return { ...best, columns, ...(mostGoOn(sheet, best.headerRow, columns) && { goesOn: true }) };
}

/** Rows without reference, title and text that say something else all the same; fewer than this share are slips. */
const SHARE_GOING_ON = 0.1;

function mostGoOn(sheet: SourceSheet, headerRow: number, columns: SheetRecipe['columns']): boolean {
  const rows = sheet.rows.slice(headerRow + 1).filter((row) => row.some((cell) => cell.trim()));
  const holds = (row: readonly string[], isIt: (as: Meaning['as']) => boolean) => columns.some(({ meaning }, at) => isIt(meaning.as) && row[at]?.trim());
  const going = rows.filter(
    (row) => !holds(row, (as) => as === 'reference' || as === 'title' || as === 'text') && holds(row, (as) => as === 'field' || as === 'link'),
  );
  return going.length > 1 && going.length >= rows.length * SHARE_GOING_ON;
}

/** Columns below a header, with what they most likely mean by their names, else by their values. */
export function proposeSheetColumns(scheme: Scheme, kind: string, sheet: SourceSheet, headerRow: number, headerRows = 1): SheetRecipe['columns'] {
  const named = readHeader(sheet, headerRow, headerRows).map((name) => ({ name, meaning: proposeColumn(scheme, kind, name) }));
  // A row across holds no value of a column.
  const rows = sheet.rows.slice(headerRow + 1).filter((row) => row.filter((cell) => cell.trim()).length > 1);
  return proposeByValues(named, (column) => rows.map((row) => row[column] ?? ''), { always: true });
}

/** Meaning of a column by its whole name, else by its last words: "Verification / Method" is also tried as "Verification Method" and "Method". */
export function proposeColumn(scheme: Scheme, kind: string, name: string): Meaning {
  const parts = name.split(' / ');
  for (const words of parts.length > 1 ? [parts.join(' '), parts.at(-1)!] : [name]) {
    const meaning = words.trim() ? proposeMeaning(scheme, kind, words) : { as: 'ignore' as const };
    if (meaning.as !== 'ignore') return meaning;
  }
  return { as: 'ignore' };
}
