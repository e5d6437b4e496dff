import type { SourceCell, SourcePlace, SourceTable } from '../source/document.js';
import { buildIdentifier, type DocumentRecipe, headerOf, type Meaning, type TableMeaning } from './document-recipe.js';
import { asParagraph, cut, hasWord, notesOf, textWithoutMarks } from './document-words.js';
import type { Draft } from './draft.js';
import type { DraftBook } from './draft-book.js';
import { isOutlineNumber, OutlinePlacing } from './outline-placing.js';
import { splitIdentifier } from './split-identifier.js';
import { writeTextTable } from './text-table.js';
import { buildReferenceTest, findTableMeaning, readCard, readItemTable, spread } from './table-shape.js';

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

/** Reads tables by a recipe: rows as items, labels and values as one item, or text of what stands before. */
export class TableReading {
  private readonly identifier: ReturnType<typeof buildIdentifier>;
  private readonly isReference: (text: string) => boolean;

  constructor(
    private readonly recipe: DocumentRecipe,
    private readonly book: DraftBook,
  ) {
    this.identifier = buildIdentifier(recipe.identifier);
    this.isReference = buildReferenceTest(recipe.identifier);
  }

  /** Reads a table; one in a cell is read with that cell, unless the recipe makes items of it. */
  read(table: SourceTable, index: number): void {
    const meaning = findTableMeaning(this.recipe.tables, table, this.isReference);
    if (table.inside !== undefined && meaning?.use !== 'items' && meaning?.use !== 'fields') return;
    this.book.closeBlocks();
    if (table.said?.isText) return this.appendTable(table);
    const place: SourcePlace = { block: index, says: `table ${table.at}` };
    if (!meaning) {
      this.book.note(
        'warning',
        'table-unknown',
        place,
        `The recipe says nothing of a table with the columns "${cut(headerOf(table.rows[0] ?? []))}"; it was kept as text`,
      );
      return this.appendTable(table);
    }
    if (meaning.use === 'ignore') return this.book.note('note', 'table-ignored', place, `Table ${table.at} is ignored, as the recipe says`);
    if (meaning.use === 'text') {
      const cell = table.rows.flat().find((one) => this.recipe.bindingWords.some((word) => hasWord(one.text, word)));
      if (cell) this.book.note('warning', 'binding-in-table', place, `The table is read as text, but "${cut(cell.text)}" in it binds`);
      return this.appendTable(table);
    }
    if (meaning.use === 'fields') return this.card(table, meaning, place);
    const { first } = readItemTable(table, this.isReference);
    const numberAt = meaning.columns.findIndex((column) => column.meaning.as === 'number');
    const numbers = table.rows.slice(first).map((row) => (numberAt < 0 ? '' : (spread(row)[numberAt]?.text ?? '')));
    const rows: OpenTable = { table, meaning, index, placing: new OutlinePlacing(numbers.some(isOutlineNumber)), above: undefined };
    for (let row = first; row < table.rows.length; row++) this.row(rows, row);
    this.book.closeSections(IN_TABLE);
  }

  private row(rows: OpenTable, row: number): void {
    const { table, meaning, index } = rows;
    const place: SourcePlace = { block: index, row, says: `table ${table.at}, row ${row + 1}` };
    const cells = spread(table.rows[row]!);
    if (cells.every((cell) => !cell?.text.trim() && !cell?.html.includes('<img')))
      return this.book.note('note', 'row-empty', place, 'An empty row was skipped');
    if (table.rows[row]!.length === 1 && meaning.columns.length > 1) {
      // The title of nothing: a foot, with a note or a sum.
      if (row === table.rows.length - 1)
        return this.book.note('note', 'row-foot', place, `The last row spans the whole table; "${cut(cells[0]?.text ?? '')}" became no item`);
      rows.above = undefined;
      rows.placing.restart();
      return this.band(table.rows[row]![0]!, place);
    }
    const values = meaning.columns.map((column, at) => ({ meaning: column.meaning, name: column.name, cell: cells[at] }));
    const key = values.find((one) => one.meaning.as === 'reference') ?? values.find((one) => one.meaning.as === 'title');
    if (key?.cell?.continued && rows.above) return this.goOn(rows.above, values, place);
    const beyond = cells.slice(meaning.columns.length).flatMap((cell) => cell?.text.trim() || []);
    if (beyond.length) this.book.note('warning', 'cells-beyond', place, `"${cut(beyond.join(' '))}" stands beyond the last column name and was skipped`);
    rows.above = this.fill(values, place, rows.placing);
  }

  /** A row whose reference goes on from above adds what it holds to that item: text, links, further choices. */
  private goOn(draft: Draft, values: readonly TableValue[], place: SourcePlace): void {
    for (const { name, meaning, cell } of values) {
      const value = cell?.text.trim();
      if (!cell || !value || cell.continued || meaning.as === 'ignore') continue;
      if (meaning.as === 'text') draft.html += asParagraph(cell.html) + notesOf(cell);
      else if (meaning.as === 'field') this.book.addToField(draft, name, meaning.field, value, place);
      else if (meaning.as === 'link') this.book.give(draft, name, meaning, value, place);
      else
        this.book.note(
          'warning',
          'row-continued',
          place,
          `The row goes on with ${draft.reference ?? 'the item above'}, whose ${meaning.as} stands already; "${cut(value)}" was skipped`,
        );
    }
  }

  /** A row across a table of items is the title of those below it. */
  private band(cell: SourceCell, place: SourcePlace): void {
    this.book.closeSections(IN_TABLE);
    const draft = this.book.add('section', null, cell.text.trim(), cell.html.includes('<img') ? asParagraph(cell.html) : '', place);
    this.book.openSection(draft, IN_TABLE);
    this.book.note('note', 'row-spanning', place, `A row that spans the whole table, "${cut(cell.text)}", was read as the title of those below it`);
  }

  /** A table of labels and values is one item; what it says beyond the recipe is told. */
  private card(table: SourceTable, meaning: TableMeaning, place: SourcePlace): void {
    const pairs = readCard(table);
    if (!pairs) {
      this.book.note(
        'warning',
        'table-no-card',
        place,
        'The recipe takes this table for one item, but its rows are no pairs of label and value; it was kept as text',
      );
      return this.appendTable(table);
    }
    const values = pairs.map(({ label, cell }): TableValue => {
      const known = meaning.columns.find((column) => column.name === label);
      if (!known && cell.text.trim())
        this.book.note('warning', 'label-unknown', place, `The recipe says nothing of "${label}" in such a table; "${cut(cell.text)}" was skipped`);
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
      this.book.note('warning', 'row-without-item', place, 'Neither reference nor title nor text stands in this row; it was skipped');
      return undefined;
    }
    const kind = of('kind');
    const is = this.book.kinds.find(kind, this.recipe.kind);
    if (!is) this.book.note('warning', 'kind-unknown', place, `"${cut(kind)}" is no kind of the project; the row was read as ${this.recipe.kind}`);
    const draft = this.book.add(is?.role ?? 'item', named.reference, title, text.map((cell) => asParagraph(cell.html) + notesOf(cell)).join(''), place);
    if (is) draft.kind = is.kind;
    draft.parent = placing?.place(draft.key, of('number')) ?? draft.parent;
    if (!named.reference && draft.role === 'item') this.book.note('note', 'no-reference', place, 'No reference stands here; the next free one will be given');
    this.book.nameByText(draft, text.map(textWithoutMarks).join(' '));
    for (const cell of text) this.book.readPhrases(draft, cell.text, place);
    for (const { meaning, cell, name } of values) if (meaning.as !== 'kind' && cell?.text.trim()) this.book.give(draft, name, meaning, cell.text.trim(), place);
    this.book.current = draft;
    return draft;
  }

  /** A cell of references may hold a title after it. */
  private splitCell(text: string): { reference: string | null; rest: string } {
    const clean = text.replace(/^\[([^\]]*)\]$/, '$1');
    const match = /\s/.test(clean) ? this.identifier?.(clean) : undefined;
    if (!match || match.length >= clean.length) return { reference: clean || null, rest: '' };
    return splitIdentifier(clean, this.identifier);
  }

  private appendTable(table: SourceTable): void {
    if (!this.book.current)
      return this.book.note(
        'warning',
        'text-before',
        { says: `table ${table.at}` },
        `A table before the first heading was skipped: "${cut(headerOf(table.rows[0] ?? []))}"`,
      );
    this.book.current.html += writeTextTable(table.rows) + table.rows.flat().map(notesOf).join('');
  }
}
