import type { Field } from './field.js';
import { fieldTypeOf } from './field-types.js';
import type { FieldValue } from './field-value.js';

/** Whether a field has no value. */
export function isNoValue(value: FieldValue | undefined): boolean {
  return value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0);
}

/** Whether a value is what a field asks for: of its type, and one of its options where it has some. */
export function fitsField(field: Field, value: FieldValue): boolean {
  if (isNoValue(value)) return true;
  const type = fieldTypeOf(field.type);
  if (!type.fits(value)) return false;
  if (!field.options?.length || type.has !== 'options') return true;
  return (Array.isArray(value) ? value : [String(value)]).every((one) => field.options!.includes(one));
}

/** A value as another field would hold it; undefined where it cannot be said so. */
export function convertValue(
  value: FieldValue,
  to: Field,
  read: (field: Field, text: string) => { value: FieldValue; problem?: string },
): FieldValue | undefined {
  if (fitsField(to, value)) return value;
  const text = typeof value === 'boolean' ? fieldTypeOf('yesNo').write(value) : fieldTypeOf('text').write(value);
  const { value: converted, problem } = read(to, text);
  return problem === undefined && converted !== null && fitsField(to, converted) ? converted : undefined;
}
