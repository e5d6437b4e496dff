import { CoombError } from '@coomb/contract';
import { fieldTypeOf, type FieldValue, getKind, isNoValue, type Scheme } from '@coomb/core';
import { sanitiseRichText } from '@coomb/formats';

/** Refuses with `input-invalid` a value that a field of its type cannot hold, and one for a field that the kind has not. */
export function checkFields(scheme: Scheme, kind: string, fields: Record<string, FieldValue>): void {
  const known = new Map(getKind(scheme, kind).fields.map((field) => [field.id, field]));
  for (const [id, value] of Object.entries(fields)) {
    const field = known.get(id);
    if (!field || isNoValue(value)) continue;
    const { fits, takes } = fieldTypeOf(field.type);
    if (!fits(value)) throw new CoombError('input-invalid', `fields.${id}: "${field.label}" takes ${takes}, not ${JSON.stringify(value).slice(0, 80)}.`);
  }
}

/** Keeps the fields that the kind has and that hold something. */
export function keepFields(scheme: Scheme, kind: string, fields: Record<string, FieldValue>): Record<string, FieldValue> {
  return Object.fromEntries(getKind(scheme, kind).fields.flatMap(({ id }) => (isNoValue(fields[id]) ? [] : [[id, fields[id]!] as const])));
}

/** Keeps the fields that the kind has and whose values are of their type; rich text is cleaned, empty values go. */
export function cleanFields(scheme: Scheme, kind: string, fields: Record<string, FieldValue>): Record<string, FieldValue> {
  const clean: Record<string, FieldValue> = {};
  for (const { id, type } of getKind(scheme, kind).fields) {
    const value = fields[id];
    if (value === undefined || isNoValue(value) || !fieldTypeOf(type).fits(value)) continue;
    clean[id] = fieldTypeOf(type).rich ? sanitiseRichText(value as string) : value;
  }
  return clean;
}

/** Values of fields that the kind has not, or has no more: nobody sees them, and they come back when the field or the kind does. */
export function hiddenFields(scheme: Scheme, kind: string, fields: Record<string, FieldValue>): Record<string, FieldValue> {
  const known = new Set(getKind(scheme, kind).fields.map((field) => field.id));
  return Object.fromEntries(Object.entries(fields).filter(([id]) => !known.has(id)));
}

/** What fields of a kind hold in items that are made by hand, unless something else is said. */
export function defaultsOf(scheme: Scheme, kind: string): Record<string, FieldValue> {
  return Object.fromEntries(getKind(scheme, kind).fields.flatMap(({ id, default: usual }) => (isNoValue(usual) ? [] : [[id, usual!] as const])));
}
