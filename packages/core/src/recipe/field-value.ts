import type { Field, FieldValue } from '../project/scheme.js';

/**
 * Reads a text into the type of a field. A value that does not fit gives a problem; text that fits no option is kept
 * as it stands, so that nothing is lost, and named.
 */
export function readFieldValue(field: Field, text: string): { value: FieldValue; problem?: string } {
  const clean = text.trim();
  if (!clean) return { value: null };
  switch (field.type) {
    case 'number': {
      const number = Number(clean.replace(',', '.').replace(/[^\d.eE+-]/g, ''));
      return Number.isFinite(number) && /\d/.test(clean) ? { value: number } : { value: null, problem: `"${clean}" is not a number; the field stays empty` };
    }
    case 'yesNo':
      return /^(yes|y|true|1|x)$/i.test(clean)
        ? { value: true }
        : /^(no|n|false|0|-)$/i.test(clean)
          ? { value: false }
          : { value: null, problem: `"${clean}" is neither yes nor no; the field stays empty` };
    case 'date':
      return /^\d{4}-\d{2}-\d{2}/.test(clean)
        ? { value: clean.slice(0, 10) }
        : { value: null, problem: `"${clean}" is not a date such as 2026-03-14; the field stays empty` };
    case 'choice': {
      const option = findOption(field, clean);
      return option ? { value: option } : { value: clean, problem: `"${clean}" is none of ${(field.options ?? []).join(', ')}; it was kept as it stands` };
    }
    case 'choices': {
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
