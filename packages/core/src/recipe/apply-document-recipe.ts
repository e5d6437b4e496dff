import type { Scheme } from '../scheme/scheme.js';
import type { SourceBlock, SourceDocument, SourceParagraph, SourcePlace } from '../source/document.js';
import { settleChanges } from '../source/settle-changes.js';
import { finish, type Stepwise } from '../steps/stepwise.js';
import { findSentences } from '../wording/sentences.js';
import { buildIdentifier, type DocumentRecipe } from './document-recipe.js';
import { TableReading } from './document-tables.js';
import { cut, escapeHtml, hasWord, notesOf, placeOf, sliceWords, textWithoutMarks } from './document-words.js';
import type { Draft, RecipeOutcome } from './draft.js';
import { DraftBook } from './draft-book.js';
import { splitAtLabels } from './label-lines.js';
import { findOutlineNumber, findTypedLevel } from './outline-number.js';
import { splitIdentifier } from './split-identifier.js';

/** Reads a document by a recipe. Nothing is dropped in silence: what becomes no item is a line in `issues`. */
export function applyDocumentRecipe(scheme: Scheme, recipe: DocumentRecipe, document: SourceDocument): RecipeOutcome {
  return finish(readDocument(scheme, recipe, document));
}

/** As `applyDocumentRecipe`, block by block. */
export function* readDocument(scheme: Scheme, recipe: DocumentRecipe, document: SourceDocument): Stepwise<RecipeOutcome> {
  const book = new DraftBook(scheme, recipe);
  const reading = new TextReading(recipe, book);
  const tables = new TableReading(recipe, book);
  const read = (block: SourceBlock, index: number) => {
    if (block.said?.field !== undefined) return reading.fieldBlock(block, block.said.field, index);
    if (block.type === 'table') return tables.read(block, index);
    if (block.aside === 'contents') return reading.contents(block, index);
    if (block.aside === 'code') return reading.text(block, index);
    const level = block.level || (recipe.typedHeadings ? findTypedLevel(block) : 0);
    if (level > 0) reading.heading(level === block.level ? block : { ...block, level }, index);
    else if (block.said?.isText) reading.text(block, index);
    else for (const part of splitAtLabels(block, reading.isLabel)) reading.paragraph(part, index);
  };
  for (const [index, block] of settleChanges(document.blocks, recipe.changes ?? 'accepted').entries()) {
    read(block, index);
    yield;
  }
  return book.finish();
}

/** Words that bind in most documents; looked for where the recipe names none. */
const USUALLY_BINDING = ['shall', 'must'];
/** Titles of sections that explain and do not ask. */
const INFORMATIVE = /\b(informative|foreword|preface|introduction|rationale|background|bibliography|examples?)\b/i;

/** What notes and examples begin with; they hold no requirements (ISO/IEC Directives, Part 2, 24 and 25). */
const NOTE = /^(?:NOTE|EXAMPLE|ANMERKUNG|BEISPIEL|Note|Example)(?:\s+\d+)?(?:\s*[:.—–-]|\s+[A-Z"“])/;

/** Reads headings and running text by a recipe. */
class TextReading {
  private readonly identifier: ReturnType<typeof buildIdentifier>;
  private readonly labels: ReadonlySet<string>;
  /** Whether a label means something here. */
  readonly isLabel = (name: string): boolean => this.labels.has(name.toLowerCase());

  constructor(
    private readonly recipe: DocumentRecipe,
    private readonly book: DraftBook,
  ) {
    this.identifier = buildIdentifier(recipe.identifier);
    this.labels = new Set(recipe.labels.filter(({ meaning }) => meaning.as !== 'ignore').map(({ label }) => label.toLowerCase()));
  }

  heading(block: SourceParagraph, index: number): void {
    this.book.closeBlocks();
    const place = placeOf(block, index);
    const meaning = this.recipe.headings[block.level - 1] ?? 'section';
    if (meaning === 'ignore')
      return this.book.note(
        'warning',
        'heading-ignored',
        place,
        `The heading "${cut(block.text)}" is ignored: the recipe ignores headings of level ${block.level}`,
      );
    if (!block.text.trim()) return this.book.note('note', 'heading-empty', place, 'An empty heading was skipped');
    this.book.closeSections(block.level);
    const { isText, reference: said = null, parent } = block.said ?? {};
    const { reference, rest, number } = isText ? { reference: said, rest: block.text, number: null } : this.splitReference(block);
    const title = rest || block.text;
    const draft = this.book.add(meaning, reference, textWithoutMarks({ ...block, text: title }), notesOf(block), place, number);
    if (parent === '') draft.parent = -1;
    else if (parent !== undefined) this.book.give(draft, 'Parent', { as: 'parent' }, parent, place);
    this.book.openSection(draft, block.level);
    this.book.readPhrases(draft, block.text, place);
  }

  /** A paragraph or table that is said to be a field, or part of one; of a section too, which labels alone never are. */
  fieldBlock(block: SourceBlock, label: string, index: number): void {
    this.book.closeBlocks();
    const meaning = this.recipe.labels.find((one) => one.label.toLowerCase() === label.toLowerCase())?.meaning;
    if (!meaning || !this.book.current) return;
    if (meaning.as === 'field' && this.book.isRich(this.book.current, meaning.field)) return this.book.appendToField(meaning.field, block);
    if (block.type === 'paragraph')
      this.book.give(this.book.current, label, meaning, block.text.slice(block.text.indexOf(':') + 1).trim(), placeOf(block, index));
  }

  /** A line of a table of contents names what stands elsewhere: it is no item, and no text. */
  contents(block: SourceParagraph, index: number): void {
    if (block.text.trim())
      this.book.note('note', 'contents-skipped', placeOf(block, index), `"${cut(block.text)}" is a line of a table of contents and was skipped`);
  }

  /** A paragraph that is said to be text. */
  text(block: SourceParagraph, index: number): void {
    this.append(block, placeOf(block, index));
  }

  paragraph(block: SourceParagraph, index: number): void {
    const place = placeOf(block, index);
    if (!block.text.trim() && !block.html.includes('<img')) return;
    const { reference, rest, number } = this.splitReference(block);
    if (reference !== null) {
      this.book.closeBlocks();
      const words = rest === '' ? '' : sliceWords(block, block.text.trimEnd().length - rest.length);
      this.book.current = this.book.add('item', reference, '', (words && `<p>${words}</p>`) + notesOf(block), place, number);
      this.book.nameByText(this.book.current, textWithoutMarks({ ...block, text: rest }));
      this.book.readPhrases(this.book.current, rest, place);
      return;
    }
    if (this.readLabel(block, place)) return;
    if (!this.isBinding(block.text)) {
      if (this.isItemByItself(block)) return this.plain(block, place, number, rest);
      this.doubt(block.text, place);
      return this.append(block, place);
    }
    if (NOTE.test(block.text)) {
      this.book.note('warning', 'binding-in-note', place, `"${cut(block.text)}" binds, but notes and examples only explain; it became text`);
      return this.append(block, place);
    }
    this.book.closeBlocks();
    const from = number === null ? 0 : block.text.trimEnd().length - rest.length;
    if (this.recipe.eachSentence) this.sentences(block, place, number, from);
    else this.binding(block, place, `<p>${from ? sliceWords(block, from) : block.html}</p>`, rest, number);
  }

  /** A sentence that binds but becomes no item of its own is told: it may be a requirement that somebody forgot to number. */
  private doubt(text: string, place: SourcePlace): void {
    const word = (this.recipe.bindingWords.length > 0 ? this.recipe.bindingWords : USUALLY_BINDING).find((one) => hasWord(text, one));
    if (word === undefined || !this.book.current) return;
    const { role, reference, title } = this.book.current;
    if (role === 'section')
      this.book.note('warning', 'binding-loose', place, `"${cut(text)}" says "${word}" but has no reference; it became text of the section "${cut(title)}"`);
    else if (hasWord(this.book.current.html, word))
      this.book.note('note', 'binding-second', place, `"${cut(text)}" says "${word}" a second time; it became text of ${reference ?? `"${cut(title)}"`}`);
  }

  private isBinding(text: string): boolean {
    return this.recipe.bindingWords.some((word) => hasWord(text, word));
  }

  private countBinding(text: string): number {
    return findSentences(text).filter(({ start, end }) => this.isBinding(text.slice(start, end))).length;
  }

  private binding(block: SourceParagraph, place: SourcePlace, html: string, text: string, number: string | null): void {
    const around = this.book.titles.find((title) => INFORMATIVE.test(title));
    if (around) this.book.note('note', 'binding-informative', place, `"${cut(text)}" binds, but stands under "${cut(around)}"; it became an item`);
    if (!this.recipe.eachSentence && this.countBinding(text) > 1)
      this.book.note('note', 'binding-twice', place, `Several sentences bind here and become one item: "${cut(text)}"`);
    const notes = notesOf({ ...block, footnotes: block.footnotes?.filter(({ mark }) => text.includes(mark)) ?? [] });
    const draft = this.book.add('item', null, '', html + notes, place, number);
    this.book.current = draft;
    this.bound.add(draft);
    this.book.nameByText(draft, textWithoutMarks({ ...block, text }));
    this.book.readPhrases(draft, text, place);
  }

  /** Whether the recipe takes a paragraph for an item that no reference and no binding word makes one. */
  private isItemByItself(block: SourceParagraph): boolean {
    const { paragraphs } = this.recipe;
    return paragraphs === 'each' || (paragraphs === 'numbered' && findOutlineNumber(block) !== undefined);
  }

  private plain(block: SourceParagraph, place: SourcePlace, number: string | null, rest: string): void {
    this.book.closeBlocks();
    const draft = this.book.add('item', null, '', `<p>${block.html}</p>${notesOf(block)}`, place, number);
    this.book.current = draft;
    this.book.nameByText(draft, textWithoutMarks({ ...block, text: rest || block.text }));
    this.book.readPhrases(draft, block.text, place);
  }

  /** Items made of binding sentences: what follows them is theirs only where the recipe says so. */
  private readonly bound = new Set<Draft>();
  private readonly informative = new Set<Draft>();

  /** Text between binding sentences, as the recipe says; false where it is none, or belongs to the item before. */
  private between(block: SourceParagraph, place: SourcePlace): boolean {
    const { current } = this.book;
    const { between = 'before' } = this.recipe;
    if (between === 'before' || !current || !(this.bound.has(current) || this.informative.has(current))) return false;
    if (between === 'skip') {
      this.book.note('note', 'text-between', place, `"${cut(block.text)}" stands between binding sentences and was skipped, as the recipe says`);
      return true;
    }
    if (between === 'section') return this.book.backToSection() ? false : this.skipWithoutSection(block, place);
    // A list goes on with the words that lead it in.
    if (this.informative.has(current) && block.list) return false;
    this.book.closeBlocks();
    const draft = this.book.add('item', null, '', '', place);
    draft.kind = this.book.informativeKind();
    this.book.nameByText(draft, textWithoutMarks(block));
    this.book.current = draft;
    this.informative.add(draft);
    return false;
  }

  private skipWithoutSection(block: SourceParagraph, place: SourcePlace): boolean {
    this.book.note('note', 'text-between', place, `"${cut(block.text)}" stands between binding sentences and in no section; it was skipped`);
    return true;
  }

  /** One item for each binding sentence; the others go with the one before them, or lead in the first. */
  private sentences(block: SourceParagraph, place: SourcePlace, number: string | null, from: number): void {
    const text = block.text.slice(from);
    const parts: { start: number; end: number; binding: boolean }[] = [];
    for (const { start, end } of findSentences(text)) {
      const binding = this.isBinding(text.slice(start, end));
      const last = parts.at(-1);
      // Text with a place of its own is parted from the sentences that bind; else it goes with them.
      const parted = last !== undefined && this.partsBetween() && binding !== last.binding;
      if (last && !parted && !(binding && last.binding)) {
        last.end = end;
        last.binding ||= binding;
      } else parts.push({ start, end, binding });
    }
    for (const { start, end, binding } of parts) {
      const html = sliceWords(block, from + start, from + end);
      if (binding || !this.partsBetween()) this.binding(block, place, `<p>${html}</p>`, text.slice(start, end), number);
      else this.append({ type: 'paragraph', at: block.at, level: 0, text: text.slice(start, end), html }, place);
    }
  }

  private partsBetween(): boolean {
    return this.recipe.between === 'section' || this.recipe.between === 'information';
  }

  private readLabel(block: SourceParagraph, place: SourcePlace): boolean {
    const at = block.text.indexOf(':');
    if (at < 0) return false;
    const name = block.text.slice(0, at).trim();
    const label = this.recipe.labels.find((one) => one.label.toLowerCase() === name.toLowerCase());
    if (!label || label.meaning.as === 'ignore') return false;
    const value = block.text.slice(at + 1).trim();
    if (!this.book.current || this.book.current.role === 'section') {
      this.book.note('warning', 'label-outside', place, `"${name}: ${cut(value)}" belongs to no item: none stands before it in this section`);
      return true;
    }
    if (label.meaning.as === 'title') this.book.current.title = value;
    else if (label.meaning.as === 'text') this.book.current.html += `<p>${escapeHtml(value)}</p>`;
    else if (label.meaning.as === 'reference') this.book.giveReference(this.book.current, value, place);
    else this.book.give(this.book.current, name, label.meaning, value, place);
    return true;
  }

  private append(block: SourceParagraph, place: SourcePlace): void {
    if (this.between(block, place)) return;
    if (!this.book.current) return this.book.note('note', 'text-before', place, `Text before the first heading was skipped: "${cut(block.text)}"`);
    this.book.append(block);
    if (block.footnotes) {
      this.book.closeBlocks();
      this.book.current.html += notesOf(block);
    }
    if (this.book.current.role === 'item' && !this.book.current.title) this.book.nameByText(this.book.current, textWithoutMarks(block));
    this.book.readPhrases(this.book.current, block.text, place);
  }

  /**
   * Reference of a paragraph: its identifier, else its number where the recipe makes references of numbers; the number where the recipe asks
   * for it; and the words without what was typed of them. Body text needs a number of two parts at least.
   */
  private splitReference(block: SourceParagraph): { reference: string | null; rest: string; number: string | null } {
    const own = splitIdentifier(block.text, this.identifier);
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
}
