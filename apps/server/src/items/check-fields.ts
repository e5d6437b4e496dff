import { CoombError } from '@coomb/contract';
import { type Field, type FieldValue, getKind, type Scheme } from '@coomb/core';
import { sanitiseRichText } from '@coomb/formats';

const isText = (value: FieldValue) => typeof value === 'string';
const isDate = (value: FieldValue) => typeof value === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(value) && !Number.isNaN(Date.parse(value));
const isList = (value: FieldValue) => Array.isArray(value) && value.every((one) => typeof one === 'string');

/** What a field of each type takes. */
const takes: Record<Field['type'], { test: (value: FieldValue) => boolean; words: string }> = {
  text: { test: isText, words: 'a text' },
  rich: { test: isText, words: 'a text' },
  person: { test: isText, words: 'a name' },
  address: { test: (value) => isText(value) && !/^\s*(?:javascript|data|vbscript):/i.test(String(value)), words: 'a web address' },
  choice: { test: isText, words: 'one value' },
  choices: { test: isList, words: 'a list of values' },
  number: { test: (value) => typeof value === 'number' && Number.isFinite(value), words: 'a number' },
  date: { test: isDate, words: 'a day such as 2026-11-27' },
  yesNo: { test: (value) => typeof value === 'boolean', words: 'yes or no' },
};

const isEmpty = (value: FieldValue | undefined) => value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0);

/** Refuses with `input-invalid` a value that a field of its type cannot hold, and one for a field that the kind has not. */
export function checkFields(scheme: Scheme, kind: string, fields: Record<string, FieldValue>): void {
  const known = new Map(getKind(scheme, kind).fields.map((field) => [field.id, field]));
  for (const [id, value] of Object.entries(fields)) {
    const field = known.get(id);
    if (!field || isEmpty(value)) continue;
    const { test, words } = takes[field.type];
    if (!test(value)) throw new CoombError('input-invalid', `fields.${id}: "${field.label}" takes ${words}, not ${JSON.stringify(value).slice(0, 80)}.`);
  }
}

/** Keeps the fields that the kind has and that hold something. */
export function keepFields(scheme: Scheme, kind: string, fields: Record<string, FieldValue>): Record<string, FieldValue> {
  return Object.fromEntries(getKind(scheme, kind).fields.flatMap(({ id }) => (isEmpty(fields[id]) ? [] : [[id, fields[id]!] as const])));
}

/** Keeps the fields that the kind has and whose values are of their type; rich text is cleaned, empty values go. */
export function cleanFields(scheme: Scheme, kind: string, fields: Record<string, FieldValue>): Record<string, FieldValue> {
  const clean: Record<string, FieldValue> = {};
  for (const { id, type } of getKind(scheme, kind).fields) {
    const value = fields[id];
    if (value === undefined || isEmpty(value) || !takes[type].test(value)) continue;
    clean[id] = type === 'rich' ? sanitiseRichText(value as string) : value;
  }
  return clean;
}
