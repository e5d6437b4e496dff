import { type FieldType, findOption, isText, writeText } from '../field-type.js';

/** One of the field's options. A text that is none of them is kept as it stands, so that nothing is lost, and named. */
export const choice = {
  id: 'choice',
  label: 'one of some',
  takes: 'one value',
  json: 'string',
  has: 'options',
  fits: isText,
  read: (words, { options }) => {
    const option = findOption(options, words);
    return option ? { value: option } : { value: words, problem: `"${words}" is none of ${(options ?? []).join(', ')}; it was kept as it stands` };
  },
  write: writeText,
  exchange: 'choice',
  editor: 'one',
} as const satisfies FieldType;
