import { findKind, type FieldValue, type Scheme } from '../project/scheme.js';
import type { SourceCell, SourceDocument, SourceParagraph, SourcePlace, SourceTable } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import { settleChanges } from '../source/settle-changes.js';
import { findSentences } from '../wording/sentences.js';
import { buildTitle } from '../wording/title.js';
import { Constants } from './constants.js';
import { buildIdentifier, type DocumentRecipe, headerOf, type Meaning, type TableMeaning } from './document-recipe.js';
import { asParagraph, cut, escapeHtml, hasWord, notesOf, placeOf, sliceWords, textWithoutMarks } from './document-words.js';
import { buildDraftLinks, type Draft, type DraftLink, type RecipeOutcome } from './draft.js';
import { joinFieldValues, readFieldValue } from './field-value.js';
import { findOutlineNumber, findTypedLevel } from './outline-number.js';
import { splitAtLabels } from './label-lines.js';
import { buildPhrases, type FoundPhrase } from './phrases.js';
import { isOutlineNumber, OutlinePlacing } from './outline-placing.js';
import { KindNames } from './row-kind.js';
import { buildReferenceTest, findTableMeaning, readCard, readItemTable, spread } from './table-shape.js';

/** Reads a document by a recipe. Nothing is dropped in silence: what becomes no item is a line in `issues`. */
export function applyDocumentRecipe(scheme: Scheme, recipe: DocumentRecipe, document: SourceDocument): RecipeOutcome {
  const reading = new DocumentReading(scheme, recipe);
  settleChanges(document.blocks, recipe.changes ?? 'accepted').forEach((block, index) => {
    if (block.type === 'table') return reading.table(block, index);
    const level = block.level || (recipe.typedHeadings ? findTypedLevel(block) : 0);
    if (level > 0) reading.heading(level === block.level ? block : { ...block, level }, index);
    else for (const part of splitAtLabels(block, reading.isLabel)) reading.paragraph(part, index);
  });
  return reading.finish();
}

/** Words that bind in most documents; looked for where the recipe names none. */
const USUALLY_BINDING = ['shall', 'must'];
/** Titles of sections that explain and do not ask. */
const INFORMATIVE = /\b(informative|foreword|preface|introduction|rationale|background|bibliography|examples?)\b/i;
/** Level of a section that is a row of a table: below every heading. */
const IN_TABLE = 100;

interface TableValue {
  name: string;
  meaning: Meaning;
  cell: SourceCell | undefined;
}

/** A table while its rows become items. */
interface OpenTable {
  table: SourceTable;
  meaning: TableMeaning;
  index: number;
  placing: OutlinePlacing;
  /** The item of the row above. */
  above: Draft | undefined;
}

class DocumentReading {
  private readonly drafts: Draft[] = [];
  private readonly links: DraftLink[] = [];
  private readonly issues: Issue[] = [];
  private readonly parents: { draft: number; target: string }[] = [];
  private readonly byReference = new Map<string, number>();
  private readonly sections: { level: number; key: number }[] = [];
  private readonly identifier: ReturnType<typeof buildIdentifier>;
  private readonly isReference: (text: string) => boolean;
  private readonly phrases: (text: string) => FoundPhrase[];
  private readonly kinds: KindNames;
  private current: Draft | undefined;
  private list: { ordered: boolean } | undefined;
  private readonly scheme: Scheme;
  private readonly recipe: DocumentRecipe;

  /** Whether a label means something here. */
  readonly isLabel = (name: string): boolean => this.labels.has(name.toLowerCase());
  private readonly labels: ReadonlySet<string>;

  constructor(scheme: Scheme, recipe: DocumentRecipe) {
    this.labels = new Set(recipe.labels.filter(({ meaning }) => meaning.as !== 'ignore').map(({ label }) => label.toLowerCase()));
    this.scheme = scheme;
    this.recipe = recipe;
    this.identifier = buildIdentifier(recipe.identifier);
    this.isReference = buildReferenceTest(recipe.identifier);
    this.phrases = buildPhrases(recipe.phrases ?? []);
    this.kinds = new KindNames(scheme);
  }

  heading(block: SourceParagraph, index: number): void {
    this.closeList();
    const place = placeOf(block, index);
    const meaning = this.recipe.headings[block.level - 1] ?? 'section';
    if (meaning === 'ignore')
      return this.note('warning', 'heading-ignored', place, `The heading "${cut(block.text)}" is ignored: the recipe ignores headings of level ${block.level}`);
    if (!block.text.trim()) return this.note('note', 'heading-empty', place, 'An empty heading was skipped');
    while (this.sections.length && this.sections.at(-1)!.level >= block.level) this.sections.pop();
    const { reference, rest, number } = this.splitReference(block);
    const title = rest || block.text;
    const draft = this.add(meaning, reference, textWithoutMarks({ ...block, text: title }), notesOf(block), place, number);
    this.sections.push({ level: block.level, key: draft.key });
    this.current = draft;
    this.readPhrases(draft, block.text, place);
  }

  paragraph(block: SourceParagraph, index: number): void {
    const place = placeOf(block, index);
    if (!block.text.trim() && !block.html.includes('<img')) return;
    const { reference, rest, number } = this.splitReference(block);
    if (reference !== null) {
      this.closeList();
      const words = rest === '' ? '' : sliceWords(block, block.text.trimEnd().length - rest.length);
      this.current = this.add('item', reference, '', (words && `<p>${words}</p>`) + notesOf(block), place, number);
      this.nameByText(this.current, textWithoutMarks({ ...block, text: rest }));
      this.readPhrases(this.current, rest, place);
      return;
    }
    if (this.readLabel(block, place)) return;
    if (!this.isBinding(block.text)) {
      this.doubt(block.text, place);
      return this.append(block, place);
    }
    this.closeList();
    const from = number === null ? 0 : block.text.trimEnd().length - rest.length;
    if (this.recipe.eachSentence) this.sentences(block, place, number, from);
    else this.binding(block, place, `<p>${from ? sliceWords(block, from) : block.html}</p>`, rest, number);
  }

  /** A sentence that binds but becomes no item of its own is told: it may be a requirement that somebody forgot to number. */
  private doubt(text: string, place: SourcePlace): void {
    const word = (this.recipe.bindingWords.length > 0 ? this.recipe.bindingWords : USUALLY_BINDING).find((one) => hasWord(text, one));
    if (word === undefined || !this.current) return;
    const { role, reference, title } = this.current;
    if (role === 'section')
      this.note('warning', 'binding-loose', place, `"${cut(text)}" says "${word}" but has no reference; it became text of the section "${cut(title)}"`);
    else if (hasWord(this.current.html, word))
      this.note('note', 'binding-second', place, `"${cut(text)}" says "${word}" a second time; it became text of ${reference ?? `"${cut(title)}"`}`);
  }

  private isBinding(text: string): boolean {
    return this.recipe.bindingWords.some((word) => hasWord(text, word));
  }

  private countBinding(text: string): number {
    return findSentences(text).filter(({ start, end }) => this.isBinding(text.slice(start, end))).length;
  }

  private binding(block: SourceParagraph, place: SourcePlace, html: string, text: string, number: string | null): void {
    const around = this.sections.map(({ key }) => this.drafts[key]!.title).find((title) => INFORMATIVE.test(title));
    if (around) this.note('note', 'binding-informative', place, `"${cut(text)}" binds, but stands under "${cut(around)}"; it became an item`);
    if (!this.recipe.eachSentence && this.countBinding(text) > 1)
      this.note('note', 'binding-twice', place, `Several sentences bind here and become one item: "${cut(text)}"`);
    const notes = notesOf({ ...block, footnotes: block.footnotes?.filter(({ mark }) => text.includes(mark)) ?? [] });
    const draft = this.add('item', null, '', html + notes, place, number);
    this.current = draft;
    this.nameByText(draft, textWithoutMarks({ ...block, text }));
    this.readPhrases(draft, text, place);
  }

  /** One item for each binding sentence; the others go with the one before them, or lead in the first. */
  private sentences(block: SourceParagraph, place: SourcePlace, number: string | null, from: number): void {
    const text = block.text.slice(from);
    const parts: { start: number; end: number; binding: boolean }[] = [];
    for (const { start, end } of findSentences(text)) {
      const binding = this.isBinding(text.slice(start, end));
      const last = parts.at(-1);
      if (last && !(binding && last.binding)) {
        last.end = end;
        last.binding ||= binding;
      } else parts.push({ start, end, binding });
    }
    for (const { start, end } of parts) this.binding(block, place, `<p>${sliceWords(block, from + start, from + end)}</p>`, text.slice(start, end), number);
  }

  table(table: SourceTable, index: number): void {
    const meaning = findTableMeaning(this.recipe.tables, table, this.isReference);
    // A table in a cell is read with that cell, unless the recipe makes items of it.
    if (table.inside !== undefined && meaning?.use !== 'items' && meaning?.use !== 'fields') return;
    this.closeList();
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
    if (meaning.use === 'text') {
      const cell = table.rows.flat().find((one) => this.isBinding(one.text));
      if (cell) this.note('warning', 'binding-in-table', place, `The table is read as text, but "${cut(cell.text)}" in it binds`);
      return this.appendTable(table);
    }
    if (meaning.use === 'fields') return this.card(table, meaning, place);
    const { first } = readItemTable(table, this.isReference);
    const numberAt = meaning.columns.findIndex((column) => column.meaning.as === 'number');
    const numbers = table.rows.slice(first).map((row) => (numberAt < 0 ? '' : (spread(row)[numberAt]?.text ?? '')));
    const rows: OpenTable = { table, meaning, index, placing: new OutlinePlacing(numbers.some(isOutlineNumber)), above: undefined };
    for (let row = first; row < table.rows.length; row++) this.row(rows, row);
    if (this.sections.at(-1)?.level === IN_TABLE) this.sections.pop();
  }

  finish(): RecipeOutcome {
    this.closeList();
    for (const draft of this.drafts) if (!draft.title) draft.title = draft.reference ?? 'Untitled';
    this.resolveParents();
    this.countEmpty();
    const constants = new Constants(this.scheme, this.recipe.constants);
    for (const draft of this.drafts) constants.giveTo(draft);
    this.issues.push(...constants.issues);
    return { drafts: this.drafts, links: this.links, issues: this.issues };
  }

  private row(rows: OpenTable, row: number): void {
    const { table, meaning, index } = rows;
    const place: SourcePlace = { block: index, row, says: `table ${table.at}, row ${row + 1}` };
    const cells = spread(table.rows[row]!);
    if (cells.every((cell) => !cell?.text.trim() && !cell?.html.includes('<img'))) return this.note('note', 'row-empty', place, 'An empty row was skipped');
    if (table.rows[row]!.length === 1 && meaning.columns.length > 1) {
      rows.above = undefined;
      rows.placing.restart();
      return this.band(table.rows[row]![0]!, place);
    }
    const values = meaning.columns.map((column, at) => ({ meaning: column.meaning, name: column.name, cell: cells[at] }));
    const key = values.find((one) => one.meaning.as === 'reference') ?? values.find((one) => one.meaning.as === 'title');
    if (key?.cell?.continued && rows.above) return this.goOn(rows.above, values, place);
    const beyond = cells.slice(meaning.columns.length).flatMap((cell) => cell?.text.trim() || []);
    if (beyond.length) this.note('warning', 'cells-beyond', place, `"${cut(beyond.join(' '))}" stands beyond the last column name and was skipped`);
    rows.above = this.fill(values, place, rows.placing);
  }

  /** A row whose reference goes on from above adds what it holds to that item: text, links, further choices. */
  private goOn(draft: Draft, values: readonly TableValue[], place: SourcePlace): void {
    for (const { name, meaning, cell } of values) {
      const value = cell?.text.trim();
      if (!cell || !value || cell.continued || meaning.as === 'ignore') continue;
      if (meaning.as === 'text') draft.html += asParagraph(cell.html) + notesOf(cell);
      else if (meaning.as === 'field') this.addToField(draft, name, meaning.field, value, place);
      else if (meaning.as === 'link') this.give(draft, name, meaning, value, place);
      else
        this.note(
          'warning',
          'row-continued',
          place,
          `The row goes on with ${draft.reference ?? 'the item above'}, whose ${meaning.as} stands already; "${cut(value)}" was skipped`,
        );
    }
  }

  private addToField(draft: Draft, name: string, id: string, value: string, place: SourcePlace): void {
    const before = draft.fields[id];
    this.give(draft, name, { as: 'field', field: id }, value, place);
    const after = draft.fields[id];
    if (before === undefined || after === undefined) return;
    const joined = joinFieldValues(this.fieldOf(draft, id)?.type, before, after);
    draft.fields[id] = joined ?? before;
    if (joined === undefined)
      this.note(
        'warning',
        'row-continued',
        place,
        `${name} holds ${String(before)} already for ${draft.reference ?? 'the item above'}; "${cut(value)}" was skipped`,
      );
  }

  /** A row across a table of items is the title of those below it. */
  private band(cell: SourceCell, place: SourcePlace): void {
    if (this.sections.at(-1)?.level === IN_TABLE) this.sections.pop();
    const draft = this.add('section', null, cell.text.trim(), cell.html.includes('<img') ? asParagraph(cell.html) : '', place);
    this.sections.push({ level: IN_TABLE, key: draft.key });
    this.current = draft;
    this.note('note', 'row-spanning', place, `A row that spans the whole table, "${cut(cell.text)}", was read as the title of those below it`);
  }

  /** A table of labels and values is one item; what it says beyond the recipe is told. */
  private card(table: SourceTable, meaning: TableMeaning, place: SourcePlace): void {
    const pairs = readCard(table);
    if (!pairs)
      return this.note(
        'warning',
        'table-no-card',
        place,
        'The recipe takes this table for one item, but its rows are no pairs of label and value; it was kept as text',
        () => this.appendTable(table),
      );
    const values = pairs.map(({ label, cell }): TableValue => {
      const known = meaning.columns.find((column) => column.name === label);
      if (!known && cell.text.trim())
        this.note('warning', 'label-unknown', place, `The recipe says nothing of "${label}" in such a table; "${cut(cell.text)}" was skipped`);
      return { name: label, meaning: known?.meaning ?? { as: 'ignore' }, cell };
    });
    this.fill(values, place);
  }

  private fill(values: readonly TableValue[], place: SourcePlace, placing?: OutlinePlacing): Draft | undefined {
    const of = (as: Meaning['as']) => values.find(({ meaning, cell }) => meaning.as === as && cell?.text.trim())?.cell?.text.trim() ?? '';
    const named = this.splitCell(of('reference'));
    const title = of('title') || named.rest;
    const text = values.filter(({ meaning, cell }) => meaning.as === 'text' && cell).map(({ cell }) => cell!);
    if (!named.reference && !title && text.every((cell) => !cell.text.trim())) {
      this.note('warning', 'row-without-item', place, 'Neither reference nor title nor text stands in this row; it was skipped');
      return undefined;
    }
    const kind = of('kind');
    const is = this.kinds.find(kind, this.recipe.kind);
    if (!is) this.note('warning', 'kind-unknown', place, `"${cut(kind)}" is no kind of the project; the row was read as ${this.recipe.kind}`);
    const draft = this.add(is?.role ?? 'item', named.reference, title, text.map((cell) => asParagraph(cell.html) + notesOf(cell)).join(''), place);
    if (is) draft.kind = is.kind;
    draft.parent = placing?.place(draft.key, of('number')) ?? draft.parent;
    if (!named.reference && draft.role === 'item') this.note('note', 'no-reference', place, 'No reference stands here; the next free one will be given');
    this.nameByText(draft, text.map(textWithoutMarks).join(' '));
    for (const cell of text) this.readPhrases(draft, cell.text, place);
    for (const { meaning, cell, name } of values) if (cell?.text.trim()) this.give(draft, name, meaning, cell.text.trim(), place);
    this.current = draft;
    return draft;
  }

  /** A cell of references may hold a title after it. */
  private splitCell(text: string): { reference: string | null; rest: string } {
    const clean = text.replace(/^\[([^\]]*)\]$/, '$1');
    const match = /\s/.test(clean) ? this.identifier?.(clean) : undefined;
    if (!match || match.length >= clean.length) return { reference: clean || null, rest: '' };
    return this.splitIdentifier(clean);
  }

  private fieldOf(draft: Draft, id: string) {
    return findKind(this.scheme, draft.kind)?.fields.find((one) => one.id === id);
  }

  private give(draft: Draft, name: string, meaning: Meaning, value: string, place: SourcePlace): void {
    if (meaning.as === 'parent') this.parents.push({ draft: draft.key, target: value });
    if (meaning.as === 'link') this.links.push(...buildDraftLinks(draft.key, meaning, value, place));
    if (meaning.as !== 'field') return;
    const field = this.fieldOf(draft, meaning.field);
    if (!field) return this.note('warning', 'field-unknown', place, `"${name}" goes to a field "${meaning.field}" that the kind does not have; it was skipped`);
    const read = readFieldValue(field, value);
    if (read.problem) this.note('warning', 'field-value', place, `${name}: ${read.problem}`);
    if (read.value !== null) draft.fields[field.id] = read.value as FieldValue;
  }

  /** What phrases in running text say of an item; the text keeps them. */
  private readPhrases(draft: Draft, text: string, place: SourcePlace): void {
    if (draft.role !== 'item') return;
    for (const { meaning, words, value } of this.phrases(text))
      if (meaning.as === 'title') draft.title = value;
      else if (meaning.as === 'reference') this.giveReference(draft, value, place);
      else this.give(draft, words, meaning, value, place);
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
    else if (label.meaning.as === 'reference') this.giveReference(this.current, value, place);
    else if (label.meaning.as === 'kind') this.giveKind(this.current, value, place);
    else this.give(this.current, name, label.meaning, value, place);
    return true;
  }

  private giveKind(draft: Draft, value: string, place: SourcePlace): void {
    const is = this.kinds.find(value, this.recipe.kind);
    if (is?.role === 'item') draft.kind = is.kind;
    else this.note('warning', 'kind-unknown', place, `"${cut(value)}" is no kind of the project; the item stays a ${draft.kind}`);
  }

  private append(block: SourceParagraph, place: SourcePlace): void {
    if (!this.current) return this.note('note', 'text-before', place, `Text before the first heading was skipped: "${cut(block.text)}"`);
    if (!block.list) this.closeList();
    else if (!this.list) {
      this.list = { ordered: block.list.ordered };
      this.current.html += block.list.ordered ? '<ol>' : '<ul>';
    }
    this.current.html += block.list ? `<li>${block.html}</li>` : `<p>${block.html}</p>`;
    if (block.footnotes) {
      this.closeList();
      this.current.html += notesOf(block);
    }
    if (this.current.role === 'item' && !this.current.title) this.nameByText(this.current, textWithoutMarks(block));
    this.readPhrases(this.current, block.text, place);
  }

  private closeList(): void {
    if (this.list && this.current) this.current.html += this.list.ordered ? '</ol>' : '</ul>';
    this.list = undefined;
  }

  private appendTable(table: SourceTable): void {
    if (!this.current)
      return this.note(
        'warning',
        'text-before',
        { says: `table ${table.at}` },
        `A table before the first heading was skipped: "${cut(headerOf(table.rows[0] ?? []))}"`,
      );
    const rows = table.rows.map((row) => `<tr>${row.map((cell) => `<td${cell.span > 1 ? ` colspan="${cell.span}"` : ''}>${cell.html}</td>`).join('')}</tr>`);
    this.current.html += `<table><tbody>${rows.join('')}</tbody></table>`;
  }

  /** Adds a draft. What is called by its `number` has no identity in the source: numbers move. */
  private add(role: Draft['role'], reference: string | null, title: string, html: string, place: SourcePlace, number: string | null = null): Draft {
    const key = this.drafts.length;
    const parent = this.sections.at(-1)?.key ?? -1;
    const draft: Draft = { key, parent, role, kind: this.recipe.kind, reference: null, externalId: null, title: title.trim(), html, fields: {}, place };
    this.drafts.push(draft);
    if (reference !== null) this.giveReference(draft, reference, place);
    if (number !== null && reference === `${this.recipe.numberPrefix}${number}`) draft.externalId = null;
    if (number !== null && this.recipe.numberField !== undefined) this.give(draft, 'Number', { as: 'field', field: this.recipe.numberField }, number, place);
    return draft;
  }

  /** A reference that stands already is left out, so that each names one item. */
  private giveReference(draft: Draft, reference: string, place: SourcePlace): void {
    if (draft.reference !== null) return;
    const twin = this.byReference.get(reference.toLowerCase());
    if (twin !== undefined)
      return this.note(
        'warning',
        'reference-twice',
        place,
        `${reference} stands already at ${this.drafts[twin]!.place.says}; this one will get a new reference`,
      );
    this.byReference.set(reference.toLowerCase(), draft.key);
    draft.reference = reference;
    draft.externalId = reference;
  }

  /** Title of an item that has none of its own: the first words of its text. */
  private nameByText(draft: Draft, text: string): void {
    if (draft.title) return;
    draft.title = buildTitle(text);
  }

  /**
   * Reference of a paragraph: its identifier, else its number where the recipe makes references of numbers; the number where the recipe asks
   * for it; and the words without what was typed of them. Body text needs a number of two parts at least.
   */
  private splitReference(block: SourceParagraph): { reference: string | null; rest: string; number: string | null } {
    const own = this.splitIdentifier(block.text);
    const { numberPrefix, numberField } = this.recipe;
    const found = numberPrefix === undefined && numberField === undefined ? undefined : findOutlineNumber(block);
    if (!found || (block.level === 0 && !found.number.includes('.'))) return { ...own, number: null };
    if (own.reference !== null) return { ...own, number: found.number };
    return {
      reference: numberPrefix === undefined ? null : `${numberPrefix}${found.number}`,
      rest: block.text.slice(found.length).trim(),
      number: found.number,
    };
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
