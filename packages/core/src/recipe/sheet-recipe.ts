import { fieldTypeOf } from '../fields/field-types.js';
import { findKind, type Scheme } from '../scheme/scheme.js';
import type { SourcePlace, SourceSheet } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import { finish, type Stepwise } from '../steps/stepwise.js';
import { counted } from '../wording/counted.js';
import { buildTitle } from '../wording/title.js';
import { Constants } from './constants.js';
import { cut, escapeHtml } from './document-words.js';
import type { Meaning } from './document-recipe.js';
import { buildDraftLinks, type Draft, type DraftLink, type RecipeOutcome } from './draft.js';
import { joinFieldValues } from './field-value.js';
import { readFieldValue } from '../fields/read-field.js';
import { isOutlineNumber, OutlinePlacing } from './outline-placing.js';
import { KindNames } from './row-kind.js';
import { MergedCells } from './sheet-layout.js';

/** A reusable mapping from the columns of a sheet to items, fields and links. */
export interface SheetRecipe {
  name: string;
  sheet: string;
  /** Row of the column names, from 0; the lowest where the header goes over several. */
  headerRow: number;
  /** Rows that the header goes over; 1 when unsaid. */
  headerRows?: number | undefined;
  kind: string;
  columns: { name: string; meaning: Meaning }[];
  /** Blanks before a title tell what stands below what. */
  indented?: boolean | undefined;
  /** A row that one merged cell takes is a section, and what follows stands in it. */
  bands?: boolean | undefined;
  /** A row without reference and title goes on with the item of the row above. */
  goesOn?: boolean | undefined;
  /** Rows that hold one of these values in a column are left out. */
  skip?: { column: string; values: string[] }[] | undefined;
  /** The same value for every item, by field. */
  constants?: Record<string, string> | undefined;
  /** How a file of separated values was read. */
  dialect?: { separator: string; quote: string } | undefined;
}

/** Reads a sheet by a recipe; a bad row is named and left out, the others come in. */
export function applySheetRecipe(scheme: Scheme, recipe: SheetRecipe, sheets: readonly SourceSheet[]): RecipeOutcome {
  return finish(readSheets(scheme, recipe, sheets));
}

/** As `applySheetRecipe`, row by row. */
export function* readSheets(scheme: Scheme, recipe: SheetRecipe, sheets: readonly SourceSheet[]): Stepwise<RecipeOutcome> {
  const sheet = sheets.find((one) => one.name === recipe.sheet);
  if (sheet) {
    const outcome = yield* new SheetReading(scheme, recipe, sheet).read();
    return { ...outcome, issues: [...outcome.issues, ...findUnread(recipe, sheet, sheets)] };
  }
  const message = `There is no sheet "${recipe.sheet}"; there are ${sheets.map((one) => one.name).join(', ')}`;
  return { drafts: [], links: [], issues: [{ severity: 'error', code: 'sheet-missing', at: recipe.sheet, message }] };
}

/** What of a workbook the recipe does not look at: rows above the column names, other sheets that hold something. */
function findUnread(recipe: SheetRecipe, sheet: SourceSheet, sheets: readonly SourceSheet[]): Issue[] {
  const isFilled = (row: readonly string[]) => row.some((cell) => cell.trim());
  const first = recipe.headerRow - (recipe.headerRows ?? 1) + 1;
  const above = sheet.rows.slice(0, Math.max(0, first)).filter(isFilled);
  const others = sheets.filter((one) => one !== sheet && one.rows.some(isFilled));
  const note = (code: string, at: string, message: string): Issue => ({ severity: 'note', code, at, message });
  return [
    ...(above.length
      ? [
          note(
            'rows-above',
            `${sheet.name}, row 1`,
            `${above.length} ${above.length === 1 ? 'row' : 'rows'} above the column names became no item: "${cut(above[0]!.filter((cell) => cell.trim()).join(' · '))}"`,
          ),
        ]
      : []),
    ...(others.length ? [note('sheets-unread', sheet.name, `Other sheets of the workbook were not read: ${others.map((one) => one.name).join(', ')}`)] : []),
  ];
}

const TOTAL =
  /^(?:(?:sub|grand )?total[es]?|sum(?:me)?|summe|gesamt|gesamtsumme|zwischensumme|somme|suma|totale|totaal|subtotaal|razem|suma częściowa|totalt|delsumma|合計|小計|総計)(?:\s*[:=(].*|\s+\d.*|\s+of\b.*)?$/iu;

class SheetReading {
  private readonly issues: Issue[] = [];
  private readonly drafts: Draft[] = [];
  private readonly links: DraftLink[] = [];
  private readonly byReference = new Map<string, { draft: number; row: number }>();
  private readonly placing: OutlinePlacing;
  private readonly kinds: KindNames;
  private readonly merged: MergedCells;
  private readonly byRow = new Map<number, Draft>();
  private band = -1;
  private skipped = 0;

  constructor(
    private readonly scheme: Scheme,
    private readonly recipe: SheetRecipe,
    private readonly sheet: SourceSheet,
  ) {
    this.merged = new MergedCells(sheet, recipe.columns.length);
    this.kinds = new KindNames(scheme);
    this.placing = new OutlinePlacing(this.isNumbered());
  }

  *read(): Stepwise<RecipeOutcome> {
    for (let row = this.recipe.headerRow + 1; row < this.sheet.rows.length; row++) {
      this.readRow(row);
      yield;
    }
    const constants = new Constants(this.scheme, this.recipe.constants);
    for (const draft of this.drafts) constants.giveTo(draft);
    this.issues.push(...constants.issues);
    if (this.skipped > 0)
      this.issues.push({
        severity: 'note',
        code: 'rows-skipped',
        at: this.sheet.name,
        message: `${this.skipped} ${this.skipped === 1 ? 'row was' : 'rows were'} left out, as the recipe says`,
      });
    this.tellUnread();
    return { drafts: this.drafts, links: this.links, issues: this.issues };
  }

  /** Columns that hold something and go nowhere, by name: whoever wrote them meant something by it. And a header without rows. */
  private tellUnread(): void {
    const { headerRow, columns } = this.recipe;
    const below = this.sheet.rows.slice(headerRow + 1);
    if (below.every((cells) => cells.every((cell) => !cell.trim())))
      this.issues.push({
        severity: 'warning',
        code: 'rows-none',
        at: this.sheet.name,
        message: `No row stands below the column names in row ${headerRow + 1}; nothing would be imported`,
      });
    columns.forEach(({ name, meaning }, column) => {
      const decides = (this.recipe.skip ?? []).some((one) => one.column.trim().toLowerCase() === name.trim().toLowerCase());
      if (meaning.as !== 'ignore' || decides) return;
      const values = below.filter((cells) => cells[column]?.trim()).length;
      if (values === 0) return;
      const called = name.trim() ? `"${cut(name)}"` : `${columnName(column)}, which has no name,`;
      this.issues.push({
        severity: 'warning',
        code: 'column-unread',
        at: `${this.sheet.name}!${columnName(column)}${headerRow + 1}`,
        message: `The column ${called} holds ${counted(values, 'value')} that go to no field: choose what it means, or make a field of it`,
      });
    });
  }

  private readRow(row: number): void {
    if (this.sheet.rows[row]!.every((cell) => !cell.trim())) return;
    const cells = this.merged.fill(row);
    if (this.isSkipped(cells)) {
      this.skipped++;
      return;
    }
    if (this.recipe.bands && this.readBand(row)) return;
    if (this.isTotal(cells))
      return this.note('note', 'row-total', row, 0, `"${cut(cells.filter((cell) => cell.trim()).join(' · '))}" is a total and became no item`);
    const textAt = (column: number) => (column < 0 ? '' : safeCell(cells[column] ?? '').trim());
    const [referenceAt, titleAt, textColumn] = [this.columnOf('reference'), this.columnOf('title'), this.columnOf('text')];
    const continued = this.merged.above(row, referenceAt >= 0 ? referenceAt : titleAt);
    const above = continued === undefined ? undefined : this.byRow.get(continued);
    if (above) return this.continueItem(above, row, textAt);
    const [title, text] = [textAt(titleAt), textAt(textColumn)];
    let reference: string | null = textAt(referenceAt) || null;
    const last = this.drafts.at(-1);
    if (this.recipe.goesOn && !reference && !title && last?.role === 'item') return this.continueItem(last, row, textAt);
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
      parent: this.band,
      role,
      kind,
      reference,
      externalId: reference,
      title: title || buildTitle(text) || reference || 'Untitled',
      html: text ? asHtml(text) : '',
      fields: {},
      place,
    };
    this.drafts.push(draft);
    this.byRow.set(row, draft);
    this.placeByDepth(draft, cells, titleAt < 0 ? textColumn : titleAt, textAt(this.columnOf('number')));
    this.recipe.columns.forEach(({ name, meaning }, column) => this.give(draft, row, column, name, meaning, textAt(column)));
    this.tellBeyond(row, cells);
  }

  /** A row that sums up others: it says so first, and has no reference of its own. */
  private isTotal(cells: readonly string[]): boolean {
    const reference = this.columnOf('reference');
    const [first = ''] = cells.filter((cell) => cell.trim());
    return TOTAL.test(first.trim()) && (reference < 0 || !cells[reference]?.trim() || TOTAL.test(cells[reference]!.trim()));
  }

  /** Cells beyond the last column name: mostly a separator that nobody quoted. */
  private tellBeyond(row: number, cells: readonly string[]): void {
    const width = this.recipe.columns.length;
    const at = cells.findIndex((cell, column) => column >= width && cell.trim());
    if (at >= 0) this.note('warning', 'cells-beyond', row, at, `"${cut(cells.slice(at).join(' '))}" stands beyond the last column name and was skipped`);
  }

  /** A row across the sheet: what follows stands in it, as far as no other column tells. */
  private readBand(row: number): boolean {
    const title = this.merged.band(row);
    if (title === undefined) return false;
    const key = this.drafts.length;
    const place: SourcePlace = { sheet: this.sheet.name, row, says: `${this.sheet.name}, row ${row + 1}` };
    this.drafts.push({ key, parent: -1, role: 'section', kind: this.recipe.kind, reference: null, externalId: null, title, html: '', fields: {}, place });
    this.band = key;
    this.placing.restart();
    return true;
  }

  /** A row whose key goes on from above adds what it holds to that item: text, links, further choices. */
  private continueItem(draft: Draft, row: number, textAt: (column: number) => string): void {
    this.recipe.columns.forEach(({ name, meaning }, column) => {
      const value = textAt(column);
      if (!value || this.merged.above(row, column) !== undefined) return;
      if (meaning.as === 'text') draft.html += asHtml(value);
      else if (meaning.as === 'link') this.links.push(...buildDraftLinks(draft.key, meaning, value, draft.place));
      else if (meaning.as === 'field') this.addToField(draft, row, column, name, meaning.field, value);
      else if (meaning.as !== 'ignore')
        this.note(
          'warning',
          'row-continued',
          row,
          column,
          `The row goes on with ${draft.reference ?? 'the item above'}, whose ${meaning.as} stands already; "${value}" was skipped`,
        );
    });
  }

  private addToField(draft: Draft, row: number, column: number, name: string, id: string, value: string): void {
    const before = draft.fields[id];
    this.giveField(draft, row, column, name, id, value);
    const after = draft.fields[id];
    if (before === undefined || after === undefined) return;
    const joined = joinFieldValues(findKind(this.scheme, draft.kind)?.fields.find((field) => field.id === id)?.type, before, after);
    draft.fields[id] = joined ?? before;
    if (joined === undefined)
      this.note(
        'warning',
        'row-continued',
        row,
        column,
        `${name} holds ${String(before)} already for ${draft.reference ?? 'the item above'}; "${value}" was skipped`,
      );
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
    const found = this.kinds.find(text, this.recipe.kind);
    if (found) return found;
    this.note('warning', 'kind-unknown', row, this.columnOf('kind'), `"${text}" is no kind of the project; the row was read as ${this.recipe.kind}`);
    return { kind: this.recipe.kind, role: 'item' };
  }

  /** Parent by an outline number, by a level, or by the blanks before the title; what has none stands below the row across. */
  private placeByDepth(draft: Draft, cells: readonly string[], titleAt: number, number: string): void {
    const depth = this.recipe.indented ? /^[\s\u00a0]*/.exec(cells[titleAt] ?? '')![0].length : undefined;
    draft.parent = this.placing.place(draft.key, number, depth) ?? draft.parent;
  }

  /** Whether the column of numbers holds outline numbers; single digits alone are levels. */
  private isNumbered(): boolean {
    const column = this.columnOf('number');
    return column >= 0 && this.sheet.rows.some((cells, row) => row > this.recipe.headerRow && isOutlineNumber(cells[column] ?? ''));
  }

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
    if (read.value !== null) draft.fields[field.id] = fieldTypeOf(field.type).rich ? asHtml(String(read.value)) : read.value;
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
