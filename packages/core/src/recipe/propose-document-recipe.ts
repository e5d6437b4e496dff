import { getUsualKind } from '../scheme/roles.js';
import { findKind, offeredLinkKinds, type Scheme } from '../scheme/scheme.js';
import type { SourceDocument } from '../source/document.js';
import { buildIdentifier, type DocumentRecipe, identifierShapes, type TableMeaning, usualIdentifier } from './document-recipe.js';
import { findOutlineNumber, findTypedLevel } from './outline-number.js';
import { buildPhrases } from './phrases.js';
import type { Phrase } from './document-recipe.js';
import { proposeMeaning } from './propose-meaning.js';
import { joinCards, proposeTable } from './propose-table.js';
import { buildReferenceTest } from './table-shape.js';

const LABEL = /^([\p{L}][\p{L} /-]{1,30}):\s+\S/u;

/** Words that bind, in the order in which they are looked for; each is proposed when it makes a good part of the binding paragraphs. */
const BINDING = ['shall', 'must', 'has to', 'is required to', 'muss', 'müssen', 'doit', 'doivent', 'debe', 'deben', 'deve', 'devono'];
/** Names of fields that clause numbers go to where a project has one. */
const NUMBER_FIELD = /^(clause|number|section|paragraph)( (no\.?|number))?$/i;
/** Fewer typed headings than this are taken for lines of text. */
const FEWEST_HEADINGS = 3;
/** Cells of fewer characters hold names and values, no sentences. */
const MOST_OF_A_NAME = 30;

/** A first recipe for a document, from what it holds: the person corrects it. */
export function proposeDocumentRecipe(scheme: Scheme, document: SourceDocument, kind = getUsualKind(scheme).id): DocumentRecipe {
  const labels = new Map<string, number>();
  const tables = new Map<string, TableMeaning>();
  const texts: string[] = [];
  const cellTexts: string[] = [];
  const headingTexts: string[] = [];
  let typed = 0;
  const identifier = proposeIdentifier(document);
  const isReference = buildReferenceTest(identifier);
  for (const block of document.blocks) {
    if (block.type === 'table') {
      const table = proposeTable(scheme, kind, block, isReference);
      if (table && !tables.has(table.header)) tables.set(table.header, table);
      for (const row of block.rows) for (const cell of row) if (cell.text.length > MOST_OF_A_NAME) cellTexts.push(cell.text);
      continue;
    }
    // Samples of code and tables of contents hold neither labels nor items.
    if (block.aside !== undefined) continue;
    if (block.level > 0) headingTexts.push(block.text);
    else if (findTypedLevel(block) > 0) typed++;
    else if (block.text.trim()) texts.push(block.text);
    if (block.level > 0) continue;
    for (const line of block.text.split('\n')) {
      const label = LABEL.exec(line.trim())?.[1];
      if (label) labels.set(label, (labels.get(label) ?? 0) + 1);
    }
  }
  const numberField = findKind(scheme, kind)?.fields.find((field) => field.type === 'text' && NUMBER_FIELD.test(field.label));
  const phrases = proposePhrases(scheme, kind, [...texts, ...cellTexts]);
  const bindingWords = proposeBindingWords(texts, headingTexts, identifier);
  const paragraphs = hasItems(document, identifier, bindingWords, [...tables.values()]) ? undefined : proposeParagraphs(document);
  return {
    name: 'Proposed from the document',
    kind,
    headings: proposeHeadings(document, identifier),
    identifier,
    bindingWords,
    ...(bindingWords.length > 0 && { between: 'section' as const }),
    ...(paragraphs && { paragraphs }),
    labels: [...labels]
      .map(([label, count]) => ({ label, count, meaning: proposeMeaning(scheme, kind, label) }))
      .filter(({ count, meaning }) => count > 1 || meaning.as !== 'ignore')
      .map(({ label, meaning }) => ({ label, meaning })),
    tables: joinCards([...tables.values()]),
    ...(phrases.length > 0 && { phrases }),
    ...(headingTexts.length === 0 && typed >= FEWEST_HEADINGS && { typedHeadings: true }),
    ...(numberField && { numberField: numberField.id }),
  };
}

/** Whether anything makes an item by itself: a reference, a binding word, a table of items, a heading that is one. */
function hasItems(document: SourceDocument, identifier: string, bindingWords: readonly string[], tables: readonly TableMeaning[]): boolean {
  if (bindingWords.length > 0 || tables.some((table) => table.use === 'items' || table.use === 'fields')) return true;
  const match = buildIdentifier(identifier)!;
  return document.blocks.some((block) => block.type === 'paragraph' && block.aside === undefined && (block.level > 0 || match(block.text) !== undefined));
}

/** In a document that tells no items in any other way: its numbered paragraphs where there are several, else each. */
function proposeParagraphs(document: SourceDocument): DocumentRecipe['paragraphs'] {
  const paragraphs = document.blocks.filter((block) => block.type === 'paragraph' && block.aside === undefined && block.text.trim() !== '');
  if (paragraphs.length === 0) return undefined;
  return paragraphs.filter((block) => block.type === 'paragraph' && findOutlineNumber(block) !== undefined).length >= FEWEST_HEADINGS ? 'numbered' : 'each';
}

/** Most references stand once: words in brackets that recur are none. */
const MOSTLY_ONCE = 0.8;

/** The shape of references that most paragraphs and headings begin with; the usual one unless another fits clearly more. */
function proposeIdentifier(document: SourceDocument): string {
  const texts = document.blocks
    .flatMap((block) => (block.type === 'paragraph' ? [block.text] : block.rows.map((row) => row[0]?.text ?? '')))
    .filter(Boolean)
    .slice(0, 5000);
  let best = { pattern: usualIdentifier, count: countReferences(texts, usualIdentifier).different };
  for (const { pattern } of identifierShapes.slice(1)) {
    const { all, different } = countReferences(texts, pattern);
    if (different > best.count * 1.2 + 1 && different >= all * MOSTLY_ONCE) best = { pattern, count: different };
  }
  return best.pattern;
}

function countReferences(texts: readonly string[], pattern: string): { all: number; different: number } {
  const match = buildIdentifier(pattern)!;
  const found = texts.flatMap((text) => match(text)?.reference ?? []);
  return { all: found.length, different: new Set(found).size };
}

/** Binding words where paragraphs and headings with references are few beside the paragraphs that bind without one. */
function proposeBindingWords(texts: readonly string[], headings: readonly string[], identifier: string): string[] {
  const match = buildIdentifier(identifier)!;
  const open = texts.filter((text) => !match(text));
  const counts = BINDING.map((word) => ({ word, count: open.filter((text) => new RegExp(`(?<!\\p{L})${word}(?!\\p{L})`, 'iu').test(text)).length }));
  const all = counts.reduce((sum, { count }) => sum + count, 0);
  const referenced = texts.length - open.length + headings.filter((text) => match(text)).length;
  if (referenced * 4 >= all) return [];
  return counts.filter(({ count }) => count * 10 >= all && count > 0).map(({ word }) => word);
}

/** Phrases of the link kinds, and of parents and fields, that lead to a value in several places; and other words that lead to references again and again. */
function proposePhrases(scheme: Scheme, kind: string, texts: readonly string[]): Phrase[] {
  const links = offeredLinkKinds(scheme).flatMap((link): Phrase[] => [
    ...(link.fromKinds.includes(kind) ? [{ words: link.phrase, meaning: { as: 'link' as const, linkKind: link.id, reversed: false } }] : []),
    ...(link.toKinds.includes(kind) ? [{ words: link.reverse, meaning: { as: 'link' as const, linkKind: link.id, reversed: true } }] : []),
  ]);
  const others = ['traces to', 'derived from', 'part of'].flatMap((words): Phrase[] => {
    const meaning = proposeMeaning(scheme, kind, words);
    return meaning.as === 'ignore' || links.some((one) => one.words === words) ? [] : [{ words, meaning }];
  });
  const low = texts.map((text) => text.toLowerCase());
  const known = [...links, ...others].filter((phrase) => {
    const find = buildPhrases([phrase]);
    const first = phrase.words.toLowerCase();
    let count = 0;
    for (const [index, text] of low.entries())
      if (text.indexOf(first) > 0 && find(texts[index]!).some(({ value }) => /^\[?[A-Z][\w.\-/ ]*\d/.test(value)) && ++count > 1) return true;
    return false;
  });
  return [...known, ...findLeads(scheme, kind, texts, new Set([...links, ...others].map(({ words }) => words.toLowerCase())))];
}

/** One to four words at the start of a clause, before something like a reference. */
const LEAD = /[.;,(]\s+((?:\p{L}+\s+){0,3}\p{L}{2,})\s*:?\s+\[?[A-Z][A-Z0-9]{0,9}[-_]\d/gu;
const FEWEST_LEADS = 3;
const MOST_LEADS = 4;

/** Words that lead to references in several places and that nothing is known of: the person says what they mean. */
function findLeads(scheme: Scheme, kind: string, texts: readonly string[], known: ReadonlySet<string>): Phrase[] {
  const counts = new Map<string, { words: string; count: number }>();
  for (const text of texts)
    for (const [, found] of text.matchAll(LEAD)) {
      const words = found!.replace(/\s+/g, ' ');
      const key = words.toLowerCase();
      if (known.has(key)) continue;
      const own = counts.get(key);
      if (own) own.count++;
      else counts.set(key, { words, count: 1 });
    }
  return [...counts.values()]
    .filter(({ words, count }) => count >= FEWEST_LEADS && !/^(and|und|oder)$/i.test(words))
    .sort((a, b) => b.count - a.count)
    .slice(0, MOST_LEADS)
    .map(({ words }) => ({ words, meaning: proposeMeaning(scheme, kind, words) }));
}

/** Levels whose headings mostly carry a reference hold items; the others are sections. */
function proposeHeadings(document: SourceDocument, identifier: string): DocumentRecipe['headings'] {
  const total = new Array<number>(9).fill(0);
  const numbered = new Array<number>(9).fill(0);
  const match = buildIdentifier(identifier)!;
  for (const block of document.blocks) {
    if (block.type !== 'paragraph' || block.level === 0) continue;
    total[block.level - 1]!++;
    if (match(block.text)) numbered[block.level - 1]!++;
  }
  return total.map((count, level) => (numbered[level]! * 2 > count ? 'item' : 'section'));
}
