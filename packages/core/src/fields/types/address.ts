import { type FieldType, isText, writeText } from '../field-type.js';

const RUNS = '^\\s*(javascript|data|vbscript):';

/** The address of a page: whatever can be opened, nothing that would run. */
export const address = {
  id: 'address',
  label: 'web address',
  takes: 'a web address',
  json: 'string',
  fits: (value) => isText(value) && !new RegExp(RUNS, 'i').test(value),
  unfit: { matches: RUNS },
  read: (words) => ({ value: words }),
  write: writeText,
  exchange: 'text',
  editor: 'line',
} as const satisfies FieldType;
