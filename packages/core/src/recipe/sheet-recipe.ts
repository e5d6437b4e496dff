import { findKind, type Scheme } from '../project/scheme.js';
import type { SourcePlace, SourceSheet } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import { escapeHtml } from './document-words.js';
import type { Meaning } from './document-recipe.js';
import { buildDraftLinks, type Draft, type DraftLink, type RecipeOutcome } from './draft.js';
import { readFieldValue } from './field-value.js';
import { proposeMeaning } from './propose-document-recipe.js';

/** A reusable mapping from the columns of a sheet to items, fields and links. */
export interface SheetRecipe {
  name: string;
  sheet: string;
  /** Row of the column names, from 0. */
  headerRow: number;
  kind: string;
  columns: { name: string; meaning: Meaning }[];
  /** Blanks before a title tell what stands below what. */
  indented?: boolean | undefined;
  /** Rows that hold one of these values in a column are left out. */
  skip?: { column: string; values: string[] }[] | undefined;
  /** The same value for every item, by field. */
  constants?: Record<string, string> | undefined;
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
  const sheet = sheets.find((one) => one.name === recipe.sheet);
  if (sheet) return new SheetReading(scheme, recipe, sheet).read();
  const message = `There is no sheet "${recipe.sheet}"; there are ${sheets.map((one) => one.name).join(', ')}`;
  return { drafts: [], links: [], issues: [{ severity: 'error', code: 'sheet-missing', at: recipe.sheet, message }] };
}

const SECTION = /^(section|heading|chapter|title|header)s?$/i;

class SheetReading {
  private readonly issues: Issue[] = [];
  private readonly drafts: Draft[] = [];
  private readonly links: DraftLink[] = [];
  private readonly byReference = new Map<string, { draft: number; row: number }>();
  private readonly byNumber = new Map<string, number>();
  /** Open items by how deep they stand: by blanks, or by a level. */
  private readonly open: { depth: number; key: number }[] = [];
  private readonly kinds = new Map<string, string>();
  private skipped = 0;

  constructor(
    private readonly scheme: Scheme,
    private readonly recipe: SheetRecipe,
    private readonly sheet: SourceSheet,
  ) {
    for (const kind of scheme.kinds) for (const name of [kind.id, kind.label, kind.plural]) this.kinds.set(name.toLowerCase(), kind.id);
  }

  read(): RecipeOutcome {
    for (let row = this.recipe.headerRow + 1; row < this.sheet.rows.length; row++) this.readRow(row);
    if (this.skipped > 0)
      this.issues.push({
        severity: 'note',
        code: 'rows-skipped',
        at: this.sheet.name,
        message: `${this.skipped} ${this.skipped === 1 ? 'row was' : 'rows were'} left out, as the recipe says`,
      });
    return { drafts: this.drafts, links: this.links, issues: this.issues };
  }

  private readRow(row: number): void {
    const cells = this.sheet.rows[row]!;
    if (cells.every((cell) => !cell.trim())) return;
    if (this.isSkipped(cells)) {
      this.skipped++;
      return;
    }
    const textAt = (column: number) => (column < 0 ? '' : safeCell(cells[column] ?? '').trim());
    const [referenceAt, titleAt, textColumn] = [this.columnOf('reference'), this.columnOf('title'), this.columnOf('text')];
    const [title, text] = [textAt(titleAt), textAt(textColumn)];
    let reference: string | null = textAt(referenceAt) || null;
    if (!reference && !title && !text)
      return this.note('warning', 'row-without-item', row, referenceAt, 'Neither reference nor title nor text stands in this row; it was skipped');
    const twin = reference === null ? undefined : this.byReference.get(reference.toLowerCase());
    if (twin) {
      this.note('warning', 'reference-twice', row, referenceAt, `${reference} stands already in row ${twin.row + 1}; this one will get a new reference`);
      reference = null;
    }
    const key = this.drafts.length;
    if (reference !== null) this.byReference.set(reference.toLowerCase(), { draft: key, row });
    const place: SourcePlace = { sheet: this.sheet.name, row, says: `${this.sheet.name}, row ${row + 1}` };
    const { kind, role } = this.kindOf(row, textAt(this.columnOf('kind')));
    const draft: Draft = {
      key,
      parent: -1,
      role,
      kind,
      reference,
      externalId: reference,
      title: title || text.slice(0, 80) || reference || 'Untitled',
      html: text ? asHtml(text) : '',
      fields: {},
      place,
    };
    this.drafts.push(draft);
    this.placeByDepth(draft, cells, titleAt < 0 ? textColumn : titleAt, textAt(this.columnOf('number')));
    this.recipe.columns.forEach(({ name, meaning }, column) => this.give(draft, row, column, name, meaning, textAt(column)));
    for (const [field, value] of Object.entries(this.recipe.constants ?? {})) this.giveField(draft, row, -1, field, field, value);
  }

  private columnOf(as: Meaning['as']): number {
    return this.recipe.columns.findIndex(({ meaning }) => meaning.as === as);
  }

  private isSkipped(cells: readonly string[]): boolean {
    return (this.recipe.skip ?? []).some(({ column, values }) => {
      const at = this.recipe.columns.findIndex((one) => one.name.trim().toLowerCase() === column.trim().toLowerCase());
      const value = (cells[at] ?? '').trim().toLowerCase();
      return at >= 0 && values.some((one) => one.trim().toLowerCase() === value);
    });
  }

  private kindOf(row: number, text: string): { kind: string; role: Draft['role'] } {
    if (!text) return { kind: this.recipe.kind, role: 'item' };
    const known = this.kinds.get(text.toLowerCase());
    if (known) return { kind: known, role: 'item' };
    if (SECTION.test(text)) return { kind: this.recipe.kind, role: 'section' };
    this.note('warning', 'kind-unknown', row, this.columnOf('kind'), `"${text}" is no kind of the project; the row was read as ${this.recipe.kind}`);
    return { kind: this.recipe.kind, role: 'item' };
  }

  /** Parent by an outline number (3.2.1 stands below 3.2), by a level, or by the blanks before the title. */
  private placeByDepth(draft: Draft, cells: readonly string[], titleAt: number, number: string): void {
    const clean = number.replace(/\.$/, '');
    if (/^\d+(\.\d+)+$/.test(clean) || (/^\d+$/.test(clean) && this.isNumbered())) {
      for (let up = clean; up.includes('.'); ) {
        up = up.slice(0, up.lastIndexOf('.'));
        const parent = this.byNumber.get(up);
        if (parent === undefined) continue;
        draft.parent = parent;
        break;
      }
      this.byNumber.set(clean, draft.key);
      return;
    }
    const byLevel = /^\d+$/.test(clean);
    if (!byLevel && !this.recipe.indented) return;
    const depth = byLevel ? Number(clean) : /^[\s\u00a0]*/.exec(cells[titleAt] ?? '')![0].length;
    while (this.open.length && this.open.at(-1)!.depth >= depth) this.open.pop();
    draft.parent = this.open.at(-1)?.key ?? -1;
    this.open.push({ depth, key: draft.key });
  }

  /** Whether the column of numbers holds outline numbers; single digits alone are levels. */
  private isNumbered(): boolean {
    const column = this.columnOf('number');
    this.numbered ??= this.sheet.rows.some((cells, row) => row > this.recipe.headerRow && /^\d+(\.\d+)+\.?$/.test((cells[column] ?? '').trim()));
    return this.numbered;
  }
  private numbered: boolean | undefined;

  private give(draft: Draft, row: number, column: number, name: string, meaning: Meaning, value: string): void {
    if (!value) return;
    if (meaning.as === 'link') this.links.push(...buildDraftLinks(draft.key, meaning, value, draft.place));
    if (meaning.as === 'parent') {
      const parent = this.byReference.get(value.toLowerCase());
      if (parent && parent.draft < draft.key) draft.parent = parent.draft;
      else this.note('warning', 'parent-unknown', row, column, `The parent "${value}" stands in no row above; the item stays at the top`);
    }
    if (meaning.as === 'field') this.giveField(draft, row, column, name, meaning.field, value);
  }

  private giveField(draft: Draft, row: number, column: number, name: string, id: string, value: string): void {
    const field = findKind(this.scheme, draft.kind)?.fields.find((one) => one.id === id);
    if (!field) return this.note('warning', 'field-unknown', row, column, `"${name}" goes to a field "${id}" that the kind does not have; it was skipped`);
    const read = readFieldValue(field, value);
    if (read.problem) this.note('warning', 'field-value', row, column, read.problem);
    if (read.value !== null) draft.fields[field.id] = field.type === 'rich' ? asHtml(String(read.value)) : read.value;
  }

  private note(severity: Issue['severity'], code: string, row: number, column: number, message: string): void {
    this.issues.push({ severity, code, at: `${this.sheet.name}!${columnName(Math.max(0, column))}${row + 1}`, message });
  }
}

/** Cells that a spreadsheet would take for a formula are kept from it by an apostrophe when they are written; here it goes again. */
function safeCell(cell: string): string {
  return /^'[=+\-@\t]/.test(cell) ? cell.slice(1) : cell;
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
