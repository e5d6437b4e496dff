import { fitsField, isNoValue } from '../fields/fits-field.js';
import type { FieldValue } from '../fields/field-value.js';
import type { Kind } from './scheme.js';

/** What the fields of an item leave to be desired, by the labels of the fields. */
export interface FieldFindings {
  /** Required and empty. */
  missing: string[];
  /** With a value that the field does not take. */
  unfit: string[];
}

/** Undefined where nothing is to be found. */
export function findFieldFindings(kind: Kind | undefined, fields: Readonly<Record<string, FieldValue>>): FieldFindings | undefined {
  const found: FieldFindings = { missing: [], unfit: [] };
  for (const field of kind?.fields ?? []) {
    const value = fields[field.id];
    if (isNoValue(value)) {
      if (field.required) found.missing.push(field.label);
    } else if (!fitsField(field, value!)) found.unfit.push(field.label);
  }
  return found.missing.length + found.unfit.length > 0 ? found : undefined;
}
