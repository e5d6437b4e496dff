import { RE2JS } from 're2js';

/** What a heading level is taken for. */
export type HeadingMeaning = 'section' | 'item' | 'ignore';

/** What a table column, or a label in running text such as "Priority:", is taken for. */
export type Meaning =
  | { as: 'ignore' }
  | { as: 'reference' }
  | { as: 'title' }
  | { as: 'text' }
  | { as: 'field'; field: string }
  | { as: 'parent' }
  /** Kind of the item by its name; "section" or "heading" makes a section. */
  | { as: 'kind' }
  /** Outline number such as 3.2.1, or a level such as 2: tells what stands below what. Sheets only. */
  | { as: 'number' }
  | LinkMeaning;

export interface LinkMeaning {
  as: 'link';
  linkKind: string;
  reversed: boolean;
  /** What the text names the other end by: its reference or its identifier in its own source (both tried when unsaid), or its title. */
  by?: 'reference' | 'source' | 'title' | undefined;
  /** Names of the collections that the other end stands in; everywhere when unsaid. */
  within?: string[] | undefined;
}

/** Words in running text that lead to a value: "Part of SYS-012", "traces to SYS-014 and SYS-020", "Owner: control room". */
export interface Phrase {
  words: string;
  meaning: Meaning;
}

export interface TableMeaning {
  /** Header texts joined by " | ": all tables with this header are read alike. */
  header: string;
  /** `items`: a row is an item. `fields`: two columns, label and value, one table an item. `text`: part of the text. */
  use: 'items' | 'fields' | 'text' | 'ignore';
  /** Meaning by column, in order; for `fields`, by label text. */
  columns: { name: string; meaning: Meaning }[];
}

/** A reusable mapping from the structure of documents to items, outline, fields and links. */
export interface DocumentRecipe {
  name: string;
  /** Kind of the items; sections become items of it too, marked as headings. */
  kind: string;
  /** Meaning by heading level; index 0 is level 1. */
  headings: HeadingMeaning[];
  /** Paragraphs that start with this pattern are items; the first group is the reference. Empty: none. */
  identifier: string;
  /** Body paragraphs holding one of these words are items of their own, even without a reference. */
  bindingWords: string[];
  labels: { label: string; meaning: Meaning }[];
  tables: TableMeaning[];
  phrases?: Phrase[] | undefined;
  /** Tracked changes are read as accepted unless said otherwise. */
  changes?: 'accepted' | 'rejected' | undefined;
  /** Makes references of the numbers that headings and clauses carry: `EN-` and 4.2.1 give EN-4.2.1. Unsaid: numbers are no references. */
  numberPrefix?: string | undefined;
  /** Field that takes these numbers: they move when something is inserted, references do not. */
  numberField?: string | undefined;
  /** Short paragraphs with a typed number, such as "3.2 Gates", are headings. */
  typedHeadings?: boolean | undefined;
  /** The same value for every item, by field, where the document says none. */
  constants?: Record<string, string> | undefined;
  /** Every sentence with a binding word is an item of its own, not every paragraph. */
  eachSentence?: boolean | undefined;
  /**
   * What becomes of text after an item that was made of a binding sentence: information items of their own, text of the section, part of
   * the item before (when unsaid), or nothing, which is told.
   */
  between?: 'information' | 'section' | 'before' | 'skip' | undefined;
  /** Where nothing else tells items: paragraphs that carry a number, or each paragraph, are items. */
  paragraphs?: 'numbered' | 'each' | undefined;
}

export function headerOf(cells: readonly { text: string }[]): string {
  return cells.map((cell) => cell.text.trim().replace(/\s+/g, ' ')).join(' | ');
}

export interface IdentifierMatch {
  reference: string;
  /** Characters of the text that the identifier takes. */
  length: number;
}

/**
 * Compiles an identifier pattern; undefined when empty. Patterns come from people, so they run on RE2, whose time is linear in the text.
 * Throws RangeError with what is wrong with it.
 */
export function buildIdentifier(pattern: string): ((text: string) => IdentifierMatch | undefined) | undefined {
  if (!pattern.trim()) return undefined;
  if (pattern.length > 200) throw new RangeError('The identifier pattern is longer than 200 characters');
  if (pattern === usualIdentifier) return matchUsual;
  let compiled: RE2JS;
  try {
    compiled = RE2JS.compile(`^\\s*(?:${pattern})`);
  } catch (error) {
    throw new RangeError(`The identifier pattern "${pattern}" is not a regular expression`, { cause: error });
  }
  return (text) => {
    const matcher = compiled.matcher(text.slice(0, 120));
    if (!matcher.find()) return undefined;
    const whole = matcher.group(0) ?? '';
    const reference = ((matcher.groupCount() > 0 ? matcher.group(1) : whole) ?? whole).trim();
    return reference ? { reference, length: whole.length } : undefined;
  };
}

/** What references usually look like. */
export const usualIdentifier = '\\[?([A-Z][A-Z0-9]{1,9}[-_]\\d+(?:\\.\\d+)*)\\]?[:.]?';

/** Shapes that references take, each with what it looks like; all but the usual one are tried on a document in this order. */
export const identifierShapes: readonly { looks: string; pattern: string }[] = [
  { looks: 'SYS-042 or [SYS-042]', pattern: usualIdentifier },
  { looks: '[REQ 4.2.1]', pattern: '\\[([A-Z]{1,10} ?\\d+(?:\\.\\d+)*)\\]' },
  { looks: 'GD-LOAD.07 or A/B/12', pattern: '([A-Z][A-Z0-9]{0,9}(?:[-_./][A-Z0-9]{1,10}){1,4}\\d(?:\\.\\d+)*)[:.)]?' },
  { looks: 'R12: or C4.1)', pattern: '([A-Z]{1,4}\\d{1,6}(?:\\.\\d+)*)[:.)]' },
  { looks: '[any-word-in-brackets]', pattern: '\\[([^\\[\\]\\s]{2,80})\\]' },
];
const usual = new RegExp(`^\\s*(?:${usualIdentifier})`, 'u');

/** The usual pattern is ours and known to be linear, so it may run on the faster engine. */
function matchUsual(text: string): IdentifierMatch | undefined {
  const match = usual.exec(text);
  return match ? { reference: match[1]!, length: match[0].length } : undefined;
}
