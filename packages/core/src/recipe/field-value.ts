import { fieldTypeOf, type FieldTypeId } from '../fields/field-types.js';
import type { FieldValue } from '../fields/field-value.js';

/** What a further row adds to a value: more choices, more text. Undefined where two values cannot stand together. */
export function joinFieldValues(type: FieldTypeId | undefined, before: FieldValue, after: FieldValue): FieldValue | undefined {
  if (before === after) return before;
  if (Array.isArray(before) && Array.isArray(after)) return [...new Set([...before, ...after])];
  return type !== undefined && fieldTypeOf(type).rich && typeof before === 'string' && typeof after === 'string' ? before + after : undefined;
}

/** References in a cell or sentence: `SYS-012, SYS-014; SYS-020` gives three. */
export function splitReferences(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[,;\n]|\band\b|\s{2,}|\s(?=[A-Z][A-Z0-9]*-\d)/u)
        .map((one) => one.trim().replace(/^\[|\]$|\.$/g, ''))
        .filter(Boolean),
    ),
  ];
}
