import type { Field, FieldType, FieldValue } from '../scheme/scheme.js';
import { readDate } from './read-date.js';
import { readNumber } from './read-number.js';

/**
 * Reads a text into the type of a field. A value that does not fit gives a problem; text that fits no option is kept
 * as it stands, so that nothing is lost, and named.
 */
export function readFieldValue(field: Field, text: string): { value: FieldValue; problem?: string } {
  const clean = text.trim();
  if (!clean) return { value: null };
  switch (field.type) {
    case 'number':
      return readNumber(clean, field.unit);
    case 'yesNo':
      return /^(yes|y|true|1|x)$/i.test(clean)
        ? { value: true }
        : /^(no|n|false|0|-)$/i.test(clean)
          ? { value: false }
          : { value: null, problem: `"${clean}" is neither yes nor no; the field stays empty` };
    case 'date': {
      const date = readDate(clean);
      return date
        ? { value: date }
        : { value: null, problem: `"${clean}" is no date that can be read for sure, such as 2026-03-14 or 14 March 2026; the field stays empty` };
    }
    case 'choice': {
      const option = findOption(field, clean);
      return option ? { value: option } : { value: clean, problem: `"${clean}" is none of ${(field.options ?? []).join(', ')}; it was kept as it stands` };
    }
    case 'choices': {
      const whole = findOption(field, clean);
      if (whole !== undefined) return { value: [whole] };
      const values = clean
        .split(/[,;/\n]+/)
        .map((one) => one.trim())
        .filter(Boolean);
      const unknown = field.options?.length ? values.filter((one) => !findOption(field, one)) : [];
      const value = values.map((one) => findOption(field, one) ?? one);
      return unknown.length ? { value, problem: `"${unknown.join(', ')}" is none of ${field.options!.join(', ')}; it was kept as it stands` } : { value };
    }
    default:
      return { value: clean };
  }
}

function findOption(field: Field, text: string): string | undefined {
  return field.options?.find((option) => option.toLowerCase() === text.toLowerCase());
}

/** What a further row adds to a value: more choices, more text. Undefined where two values cannot stand together. */
export function joinFieldValues(type: FieldType | undefined, before: FieldValue, after: FieldValue): FieldValue | undefined {
  if (before === after) return before;
  if (Array.isArray(before) && Array.isArray(after)) return [...new Set([...before, ...after])];
  return type === 'rich' && typeof before === 'string' && typeof after === 'string' ? before + after : undefined;
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
