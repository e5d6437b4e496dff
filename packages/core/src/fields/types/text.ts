import { type FieldType, isText, writeText } from '../field-type.js';

export const text = {
  id: 'text',
  label: 'text',
  takes: 'a text',
  json: 'string',
  fits: isText,
  read: (words) => ({ value: words }),
  write: writeText,
  exchange: 'text',
  editor: 'lines',
} as const satisfies FieldType;
