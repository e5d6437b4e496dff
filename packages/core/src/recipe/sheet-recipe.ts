import { findKind, type Scheme } from '../project/scheme.js';
import type { SourcePlace, SourceSheet } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import { escapeHtml } from './apply-document-recipe.js';
import type { Meaning } from './document-recipe.js';
import type { Draft, DraftLink, RecipeOutcome } from './draft.js';
import { readFieldValue, splitReferences } from './field-value.js';
import { proposeMeaning } from './propose-document-recipe.js';

/** A reusable mapping from the columns of a sheet to items, fields and links. */
export interface SheetRecipe {
  name: string;
  sheet: string;
  /** Row of the column names, from 0. */
  headerRow: number;
  kind: string;
  columns: { name: string; meaning: Meaning }[];
}

/**
 * A first recipe for a workbook: the sheet and row with the most column names that mean something. Without a kind it is guessed:
 * columns that only tests have make tests, a sheet named for needs holds needs, others requirements.
 */
export function proposeSheetRecipe(scheme: Scheme, sheets: readonly SourceSheet[], kind?: string): SheetRecipe {
  if (kind !== undefined) return proposeColumns(scheme, sheets, kind);
  const asTests = proposeColumns(scheme, sheets, 'testCase');
  const isTests = asTests.columns.some(
    ({ meaning }) =>
      (meaning.as === 'field' && ['steps', 'testKind', 'expected'].includes(meaning.field)) || (meaning.as === 'link' && meaning.linkKind === 'verifies'),
  );
  return isTests ? asTests : proposeColumns(scheme, sheets, /need/i.test(asTests.sheet) ? 'need' : 'requirement');
}

function proposeColumns(scheme: Scheme, sheets: readonly SourceSheet[], kind: string): SheetRecipe {
  let best: SheetRecipe = { name: 'Proposed from the sheet', sheet: sheets[0]?.name ?? '', headerRow: 0, kind, columns: [] };
  let bestScore = -1;
  for (const sheet of sheets)
    sheet.rows.slice(0, 20).forEach((row, headerRow) => {
      const columns = row.map((name) => ({ name: name.trim(), meaning: name.trim() ? proposeMeaning(scheme, kind, name) : ({ as: 'ignore' } as Meaning) }));
      const score = columns.filter(({ meaning }) => meaning.as !== 'ignore').length + (sheet.rows.length > headerRow + 1 ? 0.5 : 0);
      if (score <= bestScore) return;
      bestScore = score;
      best = { ...best, sheet: sheet.name, headerRow, columns };
    });
  return best;
}

/** Reads a sheet by a recipe; a bad row is named and left out, the others come in. */
export function applySheetRecipe(scheme: Scheme, recipe: SheetRecipe, sheets: readonly SourceSheet[]): RecipeOutcome {
  const issues: Issue[] = [];
  const drafts: Draft[] = [];
  const links: DraftLink[] = [];
  const sheet = sheets.find((one) => one.name === recipe.sheet);
  if (!sheet)
    return {
      drafts,
      links,
      issues: [
        {
          severity: 'error',
          code: 'sheet-missing',
          at: recipe.sheet,
          message: `There is no sheet "${recipe.sheet}"; there are ${sheets.map((one) => one.name).join(', ')}`,
        },
      ],
    };
  const seen = new Map<string, number>();
  for (let row = recipe.headerRow + 1; row < sheet.rows.length; row++) readRow(row);
  return { drafts, links, issues };

  function readRow(row: number): void {
    const cells = sheet!.rows[row]!;
    if (cells.every((cell) => !cell.trim())) return;
    const place: SourcePlace = { sheet: sheet!.name, row, says: `${sheet!.name}, row ${row + 1}` };
    const note = (severity: Issue['severity'], code: string, column: number, message: string) =>
      issues.push({ severity, code, at: `${sheet!.name}!${columnName(Math.max(0, column))}${row + 1}`, message });
    const at = (as: Meaning['as']) => recipe.columns.findIndex(({ meaning }) => meaning.as === as);
    const textAt = (column: number) => (column < 0 ? '' : (cells[column] ?? '').trim());
    let reference: string | null = textAt(at('reference')) || null;
    const title = textAt(at('title'));
    const text = textAt(at('text'));
    if (!reference && !title && !text) {
      note('warning', 'row-without-item', at('reference'), 'Neither reference nor title nor text stands in this row; it was skipped');
      return;
    }
    if (reference && seen.has(reference.toLowerCase())) {
      note(
        'warning',
        'reference-twice',
        at('reference'),
        `${reference} stands already in row ${seen.get(reference.toLowerCase())! + 1}; this one will get a new reference`,
      );
      reference = null;
    } else if (reference) seen.set(reference.toLowerCase(), row);
    const draft: Draft = {
      key: drafts.length,
      parent: -1,
      role: 'item',
      kind: recipe.kind,
      reference,
      externalId: reference,
      title: title || text.slice(0, 80) || reference || 'Untitled',
      html: text ? asHtml(text) : '',
      fields: {},
      place,
    };
    drafts.push(draft);
    recipe.columns.forEach(({ name, meaning }, column) => {
      const value = textAt(column);
      if (!value) return;
      if (meaning.as === 'link')
        for (const target of splitReferences(value)) links.push({ draft: draft.key, linkKind: meaning.linkKind, reversed: meaning.reversed, target, place });
      if (meaning.as === 'parent') {
        const parent = drafts.find((one) => one.reference?.toLowerCase() === value.toLowerCase());
        if (parent && parent.key < draft.key) draft.parent = parent.key;
        else note('warning', 'parent-unknown', column, `The parent "${value}" stands in no row above; the item stays at the top`);
      }
      if (meaning.as !== 'field') return;
      const field = findKind(scheme, recipe.kind)?.fields.find((one) => one.id === meaning.field);
      if (!field)
        return void note('warning', 'field-unknown', column, `"${name}" goes to a field "${meaning.field}" that the kind does not have; it was skipped`);
      const read = readFieldValue(field, value);
      if (read.problem) note('warning', 'field-value', column, read.problem);
      if (read.value !== null) draft.fields[field.id] = field.type === 'rich' ? asHtml(String(read.value)) : read.value;
    });
  }
}

/** 0 gives A, 26 gives AA. */
export function columnName(column: number): string {
  let name = '';
  for (let left = column; left >= 0; left = Math.floor(left / 26) - 1) name = String.fromCharCode(65 + (left % 26)) + name;
  return name;
}

/** Lines that start with a number become a list; others paragraphs. */
function asHtml(text: string): string {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter(Boolean);
  const numbered = lines.length > 1 && lines.every((line) => /^\d+[.)]\s/.test(line));
  if (numbered) return `<ol>${lines.map((line) => `<li>${escapeHtml(line.replace(/^\d+[.)]\s+/, ''))}</li>`).join('')}</ol>`;
  return lines.map((line) => `<p>${escapeHtml(line)}</p>`).join('');
}
