import type { ExportItem } from '../outgoing/export-item.js';
import { flattenIndices } from '../rich-text/indices.js';
import { plainText } from '../rich-text/sanitise.js';
import { type DocumentRecipe, type Field, fieldTypeOf, type FieldValue, type Scheme, type SheetRecipe } from '@coomb/core';

export type { ExportItem } from '../outgoing/export-item.js';

export interface Column {
  name: string;
  meaning: SheetRecipe['columns'][number]['meaning'];
  valueOf: (item: ExportItem) => string;
}

/** Columns that say everything about these items that a sheet can say: only fields and links that occur. */
export function buildColumns(scheme: Scheme, items: readonly ExportItem[], textOf: (html: string) => string): Column[] {
  const kinds = new Map(scheme.kinds.map((kind) => [kind.id, kind]));
  const fields = new Map(
    items.flatMap((item) =>
      (kinds.get(item.kind)?.fields ?? []).filter((field) => item.fields[field.id] !== undefined).map((field) => [field.id, field] as const),
    ),
  );
  const phrases = new Map(items.flatMap((item) => item.links.map((link) => [link.phrase, link] as const)));
  return [
    { name: 'Reference', meaning: { as: 'reference' }, valueOf: (item) => item.reference },
    { name: 'Title', meaning: { as: 'title' }, valueOf: (item) => item.title },
    { name: 'Text', meaning: { as: 'text' }, valueOf: (item) => textOf(item.html) },
    { name: 'Kind', meaning: { as: 'kind' }, valueOf: (item) => (item.heading ? 'Section' : (kinds.get(item.kind)?.label ?? item.kind)) },
    { name: 'Parent', meaning: { as: 'parent' }, valueOf: (item) => item.parent ?? '' },
    ...[...fields.values()].map(
      (field): Column => ({
        name: field.label,
        meaning: { as: 'field', field: field.id },
        valueOf: (item) => writeField(field, item.fields[field.id], textOf),
      }),
    ),
    ...[...phrases.values()].map(
      ({ phrase, linkKind, reversed }): Column => ({
        name: phrase,
        meaning: { as: 'link', linkKind, reversed },
        valueOf: (item) => item.links.find((link) => link.phrase === phrase)?.targets.join(', ') ?? '',
      }),
    ),
  ];
}

/** Words of a rich text for a cell. Spreadsheets lose tabs, so the cells of a table are parted by a bar; indices become signs, as m² is not m2. */
export function cellText(html: string): string {
  return plainText(flattenIndices(html))
    .replace(/[\t ]+$/gm, '')
    .replace(/\t/g, ' | ');
}

function writeField({ type: id }: Field, value: FieldValue | undefined, textOf: (html: string) => string): string {
  const type = fieldTypeOf(id);
  if (value === undefined || value === null) return '';
  // What does not fit the field, kept as it stood, is written as it stands.
  const words = type.fits(value)
    ? type.write(value)
    : Array.isArray(value)
      ? value.join(', ')
      : typeof value === 'boolean'
        ? value
          ? 'yes'
          : 'no'
        : String(value);
  return type.rich ? textOf(words) : words;
}

/** The recipe that reads such a sheet back. */
export function buildSheetRecipe(columns: readonly Column[], sheet: string, kind: string): SheetRecipe {
  return { name: `Export of ${sheet}`, sheet, headerRow: 0, kind, columns: columns.map(({ name, meaning }) => ({ name, meaning })) };
}

/** Level of the headings that are items in exported Markdown; sections stand above. */
export const ITEM_LEVEL = 6;

/** The recipe that reads exported Markdown back: headings of the lowest level are items, labels are fields and links. */
export function buildDocumentRecipe(columns: readonly Column[], name: string, kind: string, identifier: string): DocumentRecipe {
  return {
    name: `Export of ${name}`,
    kind,
    headings: Array.from({ length: 9 }, (_, index) => (index + 1 === ITEM_LEVEL ? 'item' : 'section')),
    identifier,
    bindingWords: [],
    labels: columns.filter(({ meaning }) => !['reference', 'title', 'text'].includes(meaning.as)).map(({ name: label, meaning }) => ({ label, meaning })),
    tables: [],
  };
}
