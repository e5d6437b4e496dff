import type { Field, FieldType, FieldValue } from './scheme.js';

const isText = (value: FieldValue) => typeof value === 'string';
const isDate = (value: FieldValue) => typeof value === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(value) && !Number.isNaN(Date.parse(value));
const isList = (value: FieldValue) => Array.isArray(value) && value.every((one) => typeof one === 'string');

/** What a field of each type takes, and how that is said: "takes a text". */
export const fieldTakes: Readonly<Record<FieldType, { test: (value: FieldValue) => boolean; words: string }>> = {
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

/** Whether a field has no value. */
export function isNoValue(value: FieldValue | undefined): boolean {
  return value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0);
}

/** Whether a value is what a field asks for: of its type, and one of its options where it has some. */
export function fitsField(field: Field, value: FieldValue): boolean {
  if (isNoValue(value)) return true;
  if (!fieldTakes[field.type].test(value)) return false;
  if (!field.options?.length || (field.type !== 'choice' && field.type !== 'choices')) return true;
  return (Array.isArray(value) ? value : [String(value)]).every((one) => field.options!.includes(one));
}

/** A value as another field would hold it; undefined where it cannot be said so. */
export function convertValue(
  value: FieldValue,
  to: Field,
  read: (field: Field, text: string) => { value: FieldValue; problem?: string },
): FieldValue | undefined {
  if (fitsField(to, value)) return value;
  const text = Array.isArray(value) ? value.join(', ') : value === true ? 'yes' : value === false ? 'no' : String(value);
  const { value: converted, problem } = read(to, text);
  return problem === undefined && converted !== null && fitsField(to, converted) ? converted : undefined;
}
