import { type FieldType, findOption, writeText } from '../field-type.js';

/** Several of the field's options, or any words where it has none. */
export const choices = {
  id: 'choices',
  label: 'several of some',
  takes: 'a list of values',
  json: 'array',
  has: 'options',
  fits: (value) => Array.isArray(value) && value.every((one) => typeof one === 'string'),
  read: (words, { options }) => {
    const whole = findOption(options, words);
    if (whole !== undefined) return { value: [whole] };
    const values = words
      .split(/[,;/\n]+/)
      .map((one) => one.trim())
      .filter(Boolean);
    const unknown = options?.length ? values.filter((one) => !findOption(options, one)) : [];
    const value = values.map((one) => findOption(options, one) ?? one);
    return unknown.length ? { value, problem: `"${unknown.join(', ')}" is none of ${options!.join(', ')}; it was kept as it stands` } : { value };
  },
  write: writeText,
  exchange: 'choice',
  editor: 'several',
} as const satisfies FieldType;
