import { type FieldType, isText, writeText } from '../field-type.js';

export const rich = {
  id: 'rich',
  label: 'formatted text',
  takes: 'a text',
  json: 'string',
  rich: true,
  fits: isText,
  read: (words) => ({ value: words }),
  write: writeText,
  exchange: 'rich',
  editor: 'rich',
} as const satisfies FieldType;
