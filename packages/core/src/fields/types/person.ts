import { type FieldType, isText, writeText } from '../field-type.js';

export const person = {
  id: 'person',
  label: 'person',
  takes: 'a name',
  json: 'string',
  fits: isText,
  read: (words) => ({ value: words }),
  write: writeText,
  exchange: 'text',
  editor: 'line',
} as const satisfies FieldType;
