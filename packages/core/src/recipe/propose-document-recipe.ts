import { findKind, type Scheme } from '../project/scheme.js';
import type { SourceDocument, SourceTable } from '../source/document.js';
import { type DocumentRecipe, headerOf, type Meaning, type TableMeaning, usualIdentifier } from './document-recipe.js';

const REFERENCE = /^\s*\[?(?:REQ\s*)?([A-Z][A-Z0-9]{0,9}(?:[-_.][A-Z0-9]+)*[-_.]?\d+(?:\.\d+)*)\]?(?=[\s:.)–—\]-]|$)/u;
const LABEL = /^([\p{L}][\p{L} /-]{1,30}):\s+\S/u;

const WORDS: [RegExp, Meaning][] = [
  [/^(id|ident(ifier)?|ref(erence)?|no\.?|number|req(uirement)? ?(id|no\.?|number)|key)$/i, { as: 'reference' }],
  [/^(title|name|short (name|text)|heading|summary)$/i, { as: 'title' }],
  [/^(text|requirement|description|statement|requirement text|shall statement|wording)$/i, { as: 'text' }],
  [/^(parent|part of|belongs to|child of)$/i, { as: 'parent' }],
  [/^(kind|type|object type|item type)$/i, { as: 'kind' }],
  [/^(outline( (no\.?|number|level))?|section( (no\.?|number))?|level|hierarchy|numbering)$/i, { as: 'number' }],
  [/^(source|traces? to|derived? from|derives from|origin|upstream|needs?|satisfies need)$/i, { as: 'link', linkKind: 'derives', reversed: false }],
  [/^(verifies|tests|covers|requirements?( ids?)?|verified requirements?)$/i, { as: 'link', linkKind: 'verifies', reversed: false }],
];

/** What a column or label most likely means: a known word, else a field of the kind with that label, else nothing. */
export function proposeMeaning(scheme: Scheme, kind: string, name: string): Meaning {
  const clean = name.trim().replace(/[:*]+$/, '');
  for (const link of scheme.linkKinds) {
    if (link.phrase === clean.toLowerCase() && link.fromKinds.includes(kind)) return { as: 'link', linkKind: link.id, reversed: false };
    if (link.reverse === clean.toLowerCase() && link.toKinds.includes(kind)) return { as: 'link', linkKind: link.id, reversed: true };
  }
  const field = findKind(scheme, kind)?.fields.find((one) => one.label.toLowerCase() === clean.toLowerCase() || one.id === clean.toLowerCase());
  if (field) return { as: 'field', field: field.id };
  const similar = findKind(scheme, kind)?.fields.find((one) => clean.length > 3 && one.label.toLowerCase().startsWith(clean.toLowerCase()));
  if (similar) return { as: 'field', field: similar.id };
  for (const [pattern, meaning] of WORDS) {
    if (!pattern.test(clean)) continue;
    if (meaning.as === 'link' && !mayStart(scheme, meaning.linkKind, kind)) continue;
    return meaning;
  }
  return { as: 'ignore' };
}

function mayStart(scheme: Scheme, linkKind: string, kind: string): boolean {
  return scheme.linkKinds.some((one) => one.id === linkKind && one.fromKinds.includes(kind));
}

/** A first recipe for a document, from what it holds: the person corrects it. */
export function proposeDocumentRecipe(scheme: Scheme, document: SourceDocument, kind = 'requirement'): DocumentRecipe {
  const headings = proposeHeadings(document);
  const labels = new Map<string, number>();
  const tables = new Map<string, TableMeaning>();
  let withReference = 0;
  let binding = 0;
  for (const block of document.blocks) {
    if (block.type === 'table') {
      const table = proposeTable(scheme, kind, block);
      if (table) tables.set(table.header, table);
      continue;
    }
    if (block.level > 0) continue;
    const label = LABEL.exec(block.text)?.[1];
    if (label) labels.set(label, (labels.get(label) ?? 0) + 1);
    if (REFERENCE.test(block.text)) withReference++;
    else if (/\bshall\b/i.test(block.text)) binding++;
  }
  return {
    name: 'Proposed from the document',
    kind,
    headings,
    identifier: usualIdentifier,
    bindingWords: withReference === 0 && binding > 0 ? ['shall'] : [],
    labels: [...labels]
      .map(([label, count]) => ({ label, count, meaning: proposeMeaning(scheme, kind, label) }))
      .filter(({ count, meaning }) => count > 1 || meaning.as !== 'ignore')
      .map(({ label, meaning }) => ({ label, meaning })),
    tables: [...tables.values()],
  };
}

/** Levels whose headings mostly carry a reference hold items; the others are sections. */
function proposeHeadings(document: SourceDocument): DocumentRecipe['headings'] {
  const total = new Array<number>(9).fill(0);
  const numbered = new Array<number>(9).fill(0);
  for (const block of document.blocks) {
    if (block.type !== 'paragraph' || block.level === 0) continue;
    total[block.level - 1]!++;
    if (/^\s*\[?[A-Z][A-Z0-9]{1,9}[-_]\d+/.test(block.text)) numbered[block.level - 1]!++;
  }
  return total.map((count, level) => (numbered[level]! * 2 > count ? 'item' : 'section'));
}

function proposeTable(scheme: Scheme, kind: string, table: SourceTable): TableMeaning | undefined {
  const first = table.rows[0];
  if (!first || table.rows.length < 2) return undefined;
  const columns = first.map((cell) => ({ name: cell.text.trim().replace(/\s+/g, ' '), meaning: proposeMeaning(scheme, kind, cell.text) }));
  const byRow = columns.some(({ meaning }) => meaning.as === 'reference') && columns.some(({ meaning }) => meaning.as === 'text' || meaning.as === 'title');
  if (byRow) return { header: headerOf(first), use: 'items', columns };
  const labels = table.rows.map((row) => row[0]?.text.trim() ?? '');
  const meanings = labels.map((name) => ({ name, meaning: proposeMeaning(scheme, kind, name) }));
  const isCard =
    table.rows.every((row) => row.length === 2) &&
    meanings.filter(({ meaning }) => meaning.as !== 'ignore').length >= 2 &&
    meanings.some(({ meaning }) => meaning.as === 'reference');
  if (isCard) return { header: cardHeader(table), use: 'fields', columns: meanings };
  return { header: headerOf(first), use: 'text', columns };
}

/** Tables of label and value carry no header row: they are known by their labels. */
export function cardHeader(table: SourceTable): string {
  return headerOf(table.rows.map((row) => ({ text: row[0]?.text ?? '' })));
}
