import type { SourceDocument, SourceSheet } from '../source/document.js';
import type { ExchangeDocument } from '../source/exchange.js';
import type { Issue } from '../source/issue.js';
import type { DocumentRecipe } from './document-recipe.js';
import type { ExchangeRecipe } from './exchange-recipe.js';
import { buildPhrases } from './phrases.js';
import { readHeader } from './sheet-layout.js';
import type { SheetRecipe } from './sheet-recipe.js';
import { buildReferenceTest, findTableMeaning, readItemTable } from './table-shape.js';

const depart = (code: string, at: string, message: string): Issue => ({ severity: 'warning', code, at, message });

/** Where a document departs from the structure that its recipe expects: what the recipe names and the document lacks, and the other way round. */
export function findDocumentDepartures(recipe: DocumentRecipe, document: Pick<SourceDocument, 'blocks'>): Issue[] {
  const found: Issue[] = [];
  const isReference = buildReferenceTest(recipe.identifier);
  const met = new Set<DocumentRecipe['tables'][number]>();
  const labels = new Map<string, number>();
  const levels = new Array<number>(9).fill(0);
  const unknown = new Map<string, { first: number; count: number }>();
  for (const block of document.blocks) {
    if (block.type === 'table') {
      const meaning = findTableMeaning(recipe.tables, block, isReference);
      if (meaning) {
        met.add(meaning);
        continue;
      }
      const { header } = readItemTable(block, isReference);
      const known = unknown.get(header);
      if (known) known.count++;
      else unknown.set(header, { first: block.at, count: 1 });
    } else if (block.level > 0) levels[block.level - 1]!++;
    else {
      const label = /^([^:]{1,40}):/.exec(block.text)?.[1]?.trim().toLowerCase();
      if (label) labels.set(label, (labels.get(label) ?? 0) + 1);
    }
  }
  for (const table of recipe.tables)
    if (table.use !== 'ignore' && table.use !== 'text' && !met.has(table))
      found.push(depart('table-missing', 'tables', `The recipe expects tables "${table.header}"; there is none`));
  for (const [header, { first, count }] of unknown)
    found.push(
      depart('table-new', `table ${first}`, `${count} ${count === 1 ? 'table' : 'tables'} "${header}" ${count === 1 ? 'is' : 'are'} not in the recipe`),
    );
  for (const { label, meaning } of recipe.labels)
    if (meaning.as !== 'ignore' && !labels.has(label.toLowerCase()))
      found.push(depart('label-missing', 'running text', `The recipe expects the label "${label}:"; it occurs nowhere`));
  for (const { words, meaning } of recipe.phrases ?? []) {
    if (meaning.as === 'ignore') continue;
    const find = buildPhrases([{ words, meaning: { as: 'text' } }]);
    if (
      !document.blocks.some((block) =>
        block.type === 'table' ? block.rows.some((row) => row.some((cell) => find(cell.text).length > 0)) : find(block.text).length > 0,
      )
    )
      found.push(depart('phrase-missing', 'running text', `The recipe expects the phrase "${words}"; it occurs nowhere`));
  }
  recipe.headings.forEach((meaning, level) => {
    if (meaning === 'item' && levels[level] === 0)
      found.push(depart('heading-missing', 'headings', `The recipe takes headings of level ${level + 1} for items; there are none`));
  });
  return found;
}

/** A recipe made for one sheet, put on another: columns are found by their names, wherever they stand now. */
export function alignSheetRecipe(recipe: SheetRecipe, sheets: readonly SourceSheet[]): { recipe: SheetRecipe; issues: Issue[] } {
  const named = sheets.find((one) => one.name === recipe.sheet);
  const candidates = named ? [named] : sheets;
  const wanted = new Map(recipe.columns.filter((column) => column.name.trim()).map((column) => [column.name.trim().toLowerCase(), column]));
  let best = { sheet: candidates[0], row: recipe.headerRow, score: -1 };
  for (const sheet of candidates)
    sheet.rows.slice(0, 30).forEach((_, row) => {
      const score = readHeader(sheet, row, recipe.headerRows).filter((cell) => wanted.has(cell.toLowerCase())).length - Math.abs(row - recipe.headerRow) / 100;
      if (score > best.score) best = { sheet, row, score };
    });
  const { sheet, row } = best;
  if (!sheet) return { recipe, issues: [] };
  const header = readHeader(sheet, row, recipe.headerRows);
  const issues: Issue[] = [];
  const present = new Set(header.map((cell) => cell.trim().toLowerCase()));
  for (const [name, column] of wanted)
    if (column.meaning.as !== 'ignore' && !present.has(name))
      issues.push(depart('column-missing', `${sheet.name}, row ${row + 1}`, `The recipe expects a column "${column.name.trim()}"; there is none`));
  const added = header.filter((cell) => cell.trim() && !wanted.has(cell.trim().toLowerCase()));
  if (added.length)
    issues.push(
      depart(
        'column-new',
        `${sheet.name}, row ${row + 1}`,
        `${added.length === 1 ? 'A column is' : `${added.length} columns are`} not in the recipe and left out: ${added.join(', ')}`,
      ),
    );
  const columns = header.map((name) => ({ name: name.trim(), meaning: wanted.get(name.trim().toLowerCase())?.meaning ?? ({ as: 'ignore' } as const) }));
  return { recipe: { ...recipe, sheet: sheet.name, headerRow: row, columns }, issues };
}

/** A recipe made for one exchange file, put on another: types, attributes and relations are found by identifier, else by name. */
export function alignExchangeRecipe(
  recipe: ExchangeRecipe,
  document: Pick<ExchangeDocument, 'types' | 'relationTypes'>,
): { recipe: ExchangeRecipe; issues: Issue[] } {
  const issues: Issue[] = [];
  const find = <T extends { name: string }>(list: readonly T[], isIt: (one: T) => boolean, name: string) =>
    list.find(isIt) ?? list.find((one) => one.name.toLowerCase() === name.toLowerCase());
  const types = document.types.map((type) => {
    const known = find(recipe.types, (one) => one.type === type.id, type.name);
    if (!known && type.count > 0)
      issues.push(depart('type-new', type.name, `${type.count} objects of the type "${type.name}" are not in the recipe and left out`));
    const attributes = type.attributes.map(({ id, name }) => {
      const own = known && find(known.attributes, (one) => one.id === id, name);
      return { id, name, meaning: own?.meaning ?? ({ as: 'ignore' } as const) };
    });
    for (const attribute of known?.attributes ?? [])
      if (attribute.meaning.as !== 'ignore' && !attributes.some((one) => one.name.toLowerCase() === attribute.name.toLowerCase()))
        issues.push(depart('attribute-missing', type.name, `The recipe expects the attribute "${attribute.name}"; the type lacks it`));
    return { type: type.id, name: type.name, kind: known?.kind ?? null, attributes };
  });
  const relations = document.relationTypes.map(({ id, name }) => {
    const known = find(recipe.relations, (one) => one.type === id, name);
    return { type: id, name, linkKind: known?.linkKind ?? null, reversed: known?.reversed ?? false };
  });
  return { recipe: { ...recipe, types, relations }, issues };
}
