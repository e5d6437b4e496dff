import { fieldTypeOf } from '../fields/field-types.js';
import { kindsOfRole } from '../scheme/roles.js';
import type { Field } from '../fields/field.js';
import { findKind, type Scheme } from '../scheme/scheme.js';
import type { SourceBlock, SourceParagraph, SourcePlace } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import { buildTitle } from '../wording/title.js';
import { Constants } from './constants.js';
import type { DocumentRecipe, Meaning } from './document-recipe.js';
import { cut } from './document-words.js';
import { buildDraftLinks, type Draft, type DraftLink, type RecipeOutcome } from './draft.js';
import { joinFieldValues } from './field-value.js';
import { readFieldValue } from '../fields/read-field.js';
import { OpenBlocks } from './open-blocks.js';
import { writeTextTable } from './text-table.js';
import { buildPhrases, type FoundPhrase } from './phrases.js';
import { KindNames } from './row-kind.js';

/** The drafts that a document becomes while it is read: what they are given, where they stand, and what is remarked of them. */
export class DraftBook {
  private readonly drafts: Draft[] = [];
  private readonly links: DraftLink[] = [];
  private readonly issues: Issue[] = [];
  private readonly parents: { draft: number; target: string }[] = [];
  private readonly byReference = new Map<string, number>();
  private readonly sections: { level: number; key: number }[] = [];
  private readonly phrases: (text: string) => FoundPhrase[];
  private readonly open = new OpenBlocks();
  /** The rich text field of a draft that was written last, by the draft's key. */
  private readonly fieldTexts = new Map<number, { field: string; open: OpenBlocks }>();
  readonly kinds: KindNames;
  /** The item or section that what follows belongs to. */
  current: Draft | undefined;

  constructor(
    private readonly scheme: Scheme,
    private readonly recipe: DocumentRecipe,
  ) {
    this.phrases = buildPhrases(recipe.phrases ?? []);
    this.kinds = new KindNames(scheme);
  }

  /** Adds a draft. What is called by its `number` has no identity in the source: numbers move. */
  add(role: Draft['role'], reference: string | null, title: string, html: string, place: SourcePlace, number: string | null = null): Draft {
    const key = this.drafts.length;
    const parent = this.sections.at(-1)?.key ?? -1;
    const draft: Draft = { key, parent, role, kind: this.recipe.kind, reference: null, externalId: null, title: title.trim(), html, fields: {}, place };
    this.drafts.push(draft);
    if (reference !== null) this.giveReference(draft, reference, place);
    if (number !== null && reference === `${this.recipe.numberPrefix}${number}`) draft.externalId = null;
    if (number !== null && this.recipe.numberField !== undefined) this.give(draft, 'Number', { as: 'field', field: this.recipe.numberField }, number, place);
    return draft;
  }

  /** Sections of this level and below end here. */
  closeSections(level: number): void {
    while (this.sections.length && this.sections.at(-1)!.level >= level) this.sections.pop();
  }

  /** What follows stands in the draft, until a section of its level or above. */
  openSection(draft: Draft, level: number): void {
    this.sections.push({ level, key: draft.key });
    this.current = draft;
  }

  /** What follows belongs to the section again that the current item stands in. False where there is none. */
  backToSection(): boolean {
    const section = this.sections.at(-1);
    if (!section) return false;
    this.closeBlocks();
    this.current = this.drafts[section.key];
    return true;
  }

  /** Kind of items that explain and need no coverage; the recipe's own where the scheme has none. */
  informativeKind(): string {
    const own = findKind(this.scheme, this.recipe.kind);
    const kinds = kindsOfRole(this.scheme, 'information').filter((kind) => kind.informative);
    return (kinds.find((kind) => kind.layer === own?.layer) ?? kinds[0])?.id ?? this.recipe.kind;
  }

  /** Adds a paragraph to the current text, in the list or quotation that it goes on with. */
  append(block: SourceParagraph): void {
    this.current!.html += this.open.add(block);
  }

  /** Ends the lists and quotations of the current text. */
  closeBlocks(): void {
    const end = this.open.close();
    if (this.current) this.current.html += end;
  }

  /** Adds a block to a rich text field of the current item. */
  appendToField(field: string, block: SourceBlock): void {
    if (!this.current) return;
    let text = this.fieldTexts.get(this.current.key);
    if (text?.field !== field) {
      this.closeField(this.current);
      this.fieldTexts.set(this.current.key, (text = { field, open: new OpenBlocks() }));
      this.current.fields[field] = '';
    }
    const added = block.type === 'table' ? text.open.close() + writeTextTable(block.rows) : text.open.add(block);
    this.current.fields[field] = String(this.current.fields[field] ?? '') + added;
  }

  private closeField(draft: Draft): void {
    const text = this.fieldTexts.get(draft.key);
    if (text) draft.fields[text.field] = String(draft.fields[text.field] ?? '') + text.open.close();
  }

  /** Titles of the sections that what follows stands in, the outermost first. */
  get titles(): string[] {
    return this.sections.map(({ key }) => this.drafts[key]!.title);
  }

  /** A reference that stands already is left out, so that each names one item. */
  giveReference(draft: Draft, reference: string, place: SourcePlace): void {
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
  nameByText(draft: Draft, text: string): void {
    if (draft.title) return;
    draft.title = buildTitle(text);
  }

  give(draft: Draft, name: string, meaning: Meaning, value: string, place: SourcePlace): void {
    if (meaning.as === 'parent') this.parents.push({ draft: draft.key, target: value });
    if (meaning.as === 'kind') this.giveKind(draft, value, place);
    if (meaning.as === 'link') this.links.push(...buildDraftLinks(draft.key, meaning, value, place));
    if (meaning.as !== 'field') return;
    const field = this.fieldOf(draft, meaning.field);
    if (!field) return this.note('warning', 'field-unknown', place, `"${name}" goes to a field "${meaning.field}" that the kind does not have; it was skipped`);
    const read = readFieldValue(field, value);
    if (read.problem) this.note('warning', 'field-value', place, `${name}: ${read.problem}`);
    if (read.value !== null) draft.fields[field.id] = read.value;
  }

  addToField(draft: Draft, name: string, id: string, value: string, place: SourcePlace): void {
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

  /** What phrases in running text say of an item; the text keeps them. */
  readPhrases(draft: Draft, text: string, place: SourcePlace): void {
    if (draft.role !== 'item') return;
    for (const { meaning, words, value } of this.phrases(text))
      if (meaning.as === 'title') draft.title = value;
      else if (meaning.as === 'reference') this.giveReference(draft, value, place);
      else this.give(draft, words, meaning, value, place);
  }

  private giveKind(draft: Draft, value: string, place: SourcePlace): void {
    const is = this.kinds.find(value, this.recipe.kind);
    if (is?.role === 'item') draft.kind = is.kind;
    else this.note('warning', 'kind-unknown', place, `"${cut(value)}" is no kind of the project; the item stays a ${draft.kind}`);
  }

  isRich(draft: Draft, field: string): boolean {
    const type = this.fieldOf(draft, field)?.type;
    return type !== undefined && fieldTypeOf(type).rich === true;
  }

  private fieldOf(draft: Draft, id: string): Field | undefined {
    return findKind(this.scheme, draft.kind)?.fields.find((one) => one.id === id);
  }

  finish(): RecipeOutcome {
    this.closeBlocks();
    for (const draft of this.drafts) this.closeField(draft);
    for (const draft of this.drafts) if (!draft.title) draft.title = draft.reference ?? 'Untitled';
    this.resolveParents();
    this.countEmpty();
    const constants = new Constants(this.scheme, this.recipe.constants);
    for (const draft of this.drafts) constants.giveTo(draft);
    this.issues.push(...constants.issues);
    return { drafts: this.drafts, links: this.links, issues: this.issues };
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

  note(severity: Issue['severity'], code: string, place: SourcePlace, message: string): void {
    this.issues.push({ severity, code, at: place.says, message });
  }
}
