import { findKind, type FieldValue, type Scheme } from '../project/scheme.js';
import type { SourceCell, SourceDocument, SourceParagraph, SourcePlace, SourceTable } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import { buildTitle } from '../wording/title.js';
import { buildIdentifier, type DocumentRecipe, headerOf, type Meaning, type TableMeaning } from './document-recipe.js';
import type { Draft, DraftLink, RecipeOutcome } from './draft.js';
import { readFieldValue, splitReferences } from './field-value.js';
import { cardHeader } from './propose-document-recipe.js';

/** Reads a document by a recipe. Nothing is dropped in silence: what becomes no item is a line in `issues`. */
export function applyDocumentRecipe(scheme: Scheme, recipe: DocumentRecipe, document: SourceDocument): RecipeOutcome {
  const reading = new DocumentReading(scheme, recipe);
  document.blocks.forEach((block, index) => {
    if (block.type === 'table') reading.table(block, index);
    else if (block.level > 0) reading.heading(block, index);
    else reading.paragraph(block, index);
  });
  return reading.finish();
}

class DocumentReading {
  private readonly drafts: Draft[] = [];
  private readonly links: DraftLink[] = [];
  private readonly issues: Issue[] = [];
  private readonly parents: { draft: number; target: string }[] = [];
  private readonly byReference = new Map<string, number>();
  private readonly sections: { level: number; key: number }[] = [];
  private readonly identifier: ReturnType<typeof buildIdentifier>;
  private current: Draft | undefined;
  private list: { ordered: boolean } | undefined;
  private readonly scheme: Scheme;
  private readonly recipe: DocumentRecipe;

  constructor(scheme: Scheme, recipe: DocumentRecipe) {
    this.scheme = scheme;
    this.recipe = recipe;
    this.identifier = buildIdentifier(recipe.identifier);
  }

  heading(block: SourceParagraph, index: number): void {
    this.closeList();
    const place = placeOf(block, index);
    const meaning = this.recipe.headings[block.level - 1] ?? 'section';
    if (meaning === 'ignore')
      return this.note('warning', 'heading-ignored', place, `The heading "${cut(block.text)}" is ignored: the recipe ignores headings of level ${block.level}`);
    if (!block.text.trim()) return this.note('note', 'heading-empty', place, 'An empty heading was skipped');
    while (this.sections.length && this.sections.at(-1)!.level >= block.level) this.sections.pop();
    const { reference, rest } = this.splitIdentifier(block.text);
    const draft = this.add(meaning, reference, rest || block.text, '', place);
    this.sections.push({ level: block.level, key: draft.key });
    this.current = draft;
  }

  paragraph(block: SourceParagraph, index: number): void {
    const place = placeOf(block, index);
    if (!block.text.trim() && !block.html.includes('<img')) return;
    const { reference, rest } = this.splitIdentifier(block.text);
    if (reference !== null) {
      this.closeList();
      this.current = this.add('item', reference, '', rest === '' ? '' : `<p>${cutHtml(block.html, block.text.length - rest.length)}</p>`, place);
      this.nameByText(this.current, rest);
      return;
    }
    if (this.readLabel(block, place)) return;
    if (this.recipe.bindingWords.some((word) => hasWord(block.text, word))) {
      this.closeList();
      this.current = this.add('item', null, '', `<p>${block.html}</p>`, place);
      this.nameByText(this.current, block.text);
      return;
    }
    this.append(block, place);
  }

  table(table: SourceTable, index: number): void {
    this.closeList();
    const meaning = this.findTable(table);
    const place: SourcePlace = { block: index, says: `table ${table.at}` };
    if (!meaning)
      return this.note(
        'warning',
        'table-unknown',
        place,
        `The recipe says nothing of a table with the columns "${cut(headerOf(table.rows[0] ?? []))}"; it was kept as text`,
        () => this.appendTable(table),
      );
    if (meaning.use === 'ignore') return this.note('note', 'table-ignored', place, `Table ${table.at} is ignored, as the recipe says`);
    if (meaning.use === 'text') return this.appendTable(table);
    if (meaning.use === 'fields') return this.card(table, meaning, place);
    for (let row = 1; row < table.rows.length; row++) this.row(table, meaning, index, row);
  }

  finish(): RecipeOutcome {
    this.closeList();
    for (const draft of this.drafts) if (!draft.title) draft.title = draft.reference ?? 'Untitled';
    this.resolveParents();
    this.countEmpty();
    return { drafts: this.drafts, links: this.links, issues: this.issues };
  }

  private findTable(table: SourceTable): TableMeaning | undefined {
    const byHeader = headerOf(table.rows[0] ?? []);
    const card = table.rows.every((row) => row.length === 2) ? cardHeader(table) : undefined;
    return (
      this.recipe.tables.find((one) => one.header === (one.use === 'fields' ? card : byHeader)) ??
      this.recipe.tables.find((one) => one.header === byHeader || one.header === card)
    );
  }

  private row(table: SourceTable, meaning: TableMeaning, index: number, row: number): void {
    const place: SourcePlace = { block: index, row, says: `table ${table.at}, row ${row + 1}` };
    const cells = spread(table.rows[row]!);
    if (cells.every((cell) => !cell?.text.trim() && !cell?.html.includes('<img'))) return this.note('note', 'row-empty', place, 'An empty row was skipped');
    if (table.rows[row]!.length === 1 && meaning.columns.length > 1)
      return this.note('warning', 'row-spanning', place, `A row that spans the whole table, "${cut(table.rows[row]![0]!.text)}", was skipped`);
    const values = meaning.columns.map((column, at) => ({ meaning: column.meaning, name: column.name, cell: cells[at] }));
    this.fill(values, place);
  }

  private card(table: SourceTable, meaning: TableMeaning, place: SourcePlace): void {
    const values = table.rows.map((row) => {
      const name = row[0]?.text.trim() ?? '';
      return { name, meaning: meaning.columns.find((column) => column.name === name)?.meaning ?? { as: 'ignore' as const }, cell: row[1] };
    });
    this.fill(values, place);
  }

  private fill(values: { name: string; meaning: Meaning; cell: SourceCell | undefined }[], place: SourcePlace): void {
    const of = (as: Meaning['as']) => values.find(({ meaning, cell }) => meaning.as === as && cell?.text.trim())?.cell;
    const reference =
      of('reference')
        ?.text.trim()
        .replace(/^\[|\]$/g, '') ?? null;
    const title = of('title')?.text.trim() ?? '';
    const text = values.filter(({ meaning, cell }) => meaning.as === 'text' && cell).map(({ cell }) => cell!);
    if (!reference && !title && text.every((cell) => !cell.text.trim()))
      return this.note('warning', 'row-without-item', place, 'Neither reference nor title nor text stands in this row; it was skipped');
    const draft = this.add('item', reference, title, text.map((cell) => asParagraph(cell.html)).join(''), place);
    if (!reference) this.note('note', 'no-reference', place, 'No reference stands here; the next free one will be given');
    this.nameByText(draft, text.map((cell) => cell.text).join(' '));
    for (const { meaning, cell, name } of values) if (cell?.text.trim()) this.give(draft, name, meaning, cell.text.trim(), place);
    this.current = draft;
  }

  private give(draft: Draft, name: string, meaning: Meaning, value: string, place: SourcePlace): void {
    if (meaning.as === 'parent') this.parents.push({ draft: draft.key, target: value });
    if (meaning.as === 'link')
      for (const target of splitReferences(value)) this.links.push({ draft: draft.key, linkKind: meaning.linkKind, reversed: meaning.reversed, target, place });
    if (meaning.as !== 'field') return;
    const field = findKind(this.scheme, this.recipe.kind)?.fields.find((one) => one.id === meaning.field);
    if (!field) return this.note('warning', 'field-unknown', place, `"${name}" goes to a field "${meaning.field}" that the kind does not have; it was skipped`);
    const read = readFieldValue(field, value);
    if (read.problem) this.note('warning', 'field-value', place, `${name}: ${read.problem}`);
    if (read.value !== null) draft.fields[field.id] = read.value as FieldValue;
  }

  private readLabel(block: SourceParagraph, place: SourcePlace): boolean {
    const at = block.text.indexOf(':');
    if (at < 0) return false;
    const name = block.text.slice(0, at).trim();
    const label = this.recipe.labels.find((one) => one.label.toLowerCase() === name.toLowerCase());
    if (!label || label.meaning.as === 'ignore') return false;
    const value = block.text.slice(at + 1).trim();
    if (!this.current || this.current.role === 'section') {
      this.note('warning', 'label-outside', place, `"${name}: ${cut(value)}" belongs to no item: none stands before it in this section`);
      return true;
    }
    if (label.meaning.as === 'title') this.current.title = value;
    else if (label.meaning.as === 'text') this.current.html += `<p>${escapeHtml(value)}</p>`;
    else if (label.meaning.as === 'reference') this.current.reference = value;
    else this.give(this.current, name, label.meaning, value, place);
    return true;
  }

  private append(block: SourceParagraph, place: SourcePlace): void {
    if (!this.current) return this.note('note', 'text-before', place, `Text before the first heading was skipped: "${cut(block.text)}"`);
    if (!block.list) this.closeList();
    else if (!this.list) {
      this.list = { ordered: block.list.ordered };
      this.current.html += block.list.ordered ? '<ol>' : '<ul>';
    }
    this.current.html += block.list ? `<li>${block.html}</li>` : `<p>${block.html}</p>`;
    if (this.current.role === 'item' && !this.current.title) this.nameByText(this.current, block.text);
  }

  private closeList(): void {
    if (this.list && this.current) this.current.html += this.list.ordered ? '</ol>' : '</ul>';
    this.list = undefined;
  }

  private appendTable(table: SourceTable): void {
    if (!this.current) return;
    const rows = table.rows.map((row) => `<tr>${row.map((cell) => `<td${cell.span > 1 ? ` colspan="${cell.span}"` : ''}>${cell.html}</td>`).join('')}</tr>`);
    this.current.html += `<table><tbody>${rows.join('')}</tbody></table>`;
  }

  private add(role: Draft['role'], reference: string | null, title: string, html: string, place: SourcePlace): Draft {
    const key = this.drafts.length;
    const parent = this.sections.at(-1)?.key ?? -1;
    let kept = reference;
    if (reference !== null) {
      const twin = this.byReference.get(reference.toLowerCase());
      if (twin !== undefined) {
        this.note('warning', 'reference-twice', place, `${reference} stands already at ${this.drafts[twin]!.place.says}; this one will get a new reference`);
        kept = null;
      } else this.byReference.set(reference.toLowerCase(), key);
    }
    const draft: Draft = { key, parent, role, kind: this.recipe.kind, reference: kept, externalId: kept, title: title.trim(), html, fields: {}, place };
    this.drafts.push(draft);
    return draft;
  }

  /** Title of an item that has none of its own: the first words of its text. */
  private nameByText(draft: Draft, text: string): void {
    if (draft.title) return;
    draft.title = buildTitle(text);
  }

  private splitIdentifier(text: string): { reference: string | null; rest: string } {
    const match = this.identifier?.(text);
    if (!match) return { reference: null, rest: text.trim() };
    return {
      reference: match.reference,
      rest: text
        .slice(match.length)
        .replace(/^\s*(?:[:.]+|[–—-](?=\s))?\s*/, '')
        .trim(),
    };
  }

  /** Parents named by reference win over the section an item stands in, unless that would tie a knot. */
  private resolveParents(): void {
    for (const { draft, target } of this.parents) {
      const parent = this.byReference.get(target.toLowerCase());
      const own = this.drafts[draft]!;
      if (parent === undefined)
        this.note(
          'warning',
          'parent-unknown',
          own.place,
          `The parent "${cut(target)}" is not in this document; ${own.reference ?? 'the item'} stays in its section`,
        );
      else if (parent >= draft)
        this.note('warning', 'parent-later', own.place, `The parent ${target} stands after ${own.reference ?? 'the item'}, or is it; it stays in its section`);
      else own.parent = parent;
    }
  }

  private countEmpty(): void {
    for (const draft of this.drafts)
      if (draft.role === 'item' && !draft.html && !draft.title)
        this.note('warning', 'item-empty', draft.place, `${draft.reference ?? 'An item'} has neither title nor text`);
  }

  private note(severity: Issue['severity'], code: string, place: SourcePlace, message: string, then?: () => void): void {
    this.issues.push({ severity, code, at: place.says, message });
    then?.();
  }
}

function placeOf({ at, page }: SourceParagraph, block: number): SourcePlace {
  return page === undefined ? { block, says: `paragraph ${at}` } : { block, page, says: `page ${page}, paragraph ${at}` };
}

/** Cells by column, a spanning cell in its first column only. */
function spread(cells: readonly SourceCell[]): readonly (SourceCell | undefined)[] {
  if (cells.every((cell) => cell.span === 1)) return cells;
  return cells.flatMap((cell) => [cell, ...new Array<undefined>(Math.max(0, cell.span - 1)).fill(undefined)]);
}

function hasWord(text: string, word: string): boolean {
  return ` ${text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ')} `.includes(` ${word.toLowerCase()} `);
}

function cut(text: string): string {
  const clean = text.trim().replace(/\s+/g, ' ');
  return clean.length > 60 ? `${clean.slice(0, 59)}…` : clean;
}

function asParagraph(html: string): string {
  return html.startsWith('<p') || html.startsWith('<ul') || html.startsWith('<ol') ? html : `<p>${html}</p>`;
}

export function escapeHtml(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
}

/** Cuts characters off the front of marked-up text, leaving the markup whole. */
function cutHtml(html: string, characters: number): string {
  let left = characters;
  return html
    .split(/(<[^>]*>|&[a-z#0-9]+;)/)
    .map((part) => {
      if (part.startsWith('<') || left <= 0) return part;
      const size = part.startsWith('&') ? 1 : part.length;
      const gone = Math.min(left, size);
      left -= gone;
      return part.startsWith('&') ? '' : part.slice(gone);
    })
    .join('')
    .replace(/<(strong|em|u|s|sub|sup)><\/\1>/g, '')
    .trimStart();
}
