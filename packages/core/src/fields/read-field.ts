import type { Field } from './field.js';
import type { Reading } from './field-type.js';
import { fieldTypeOf } from './field-types.js';

/** Reads a text into the type of a field. A value that does not fit gives a problem, in words that name the text. */
export function readFieldValue(field: Field, text: string): Reading {
  const clean = text.trim();
  return clean ? fieldTypeOf(field.type).read(clean, field) : { value: null };
}
