import { type FieldType, writeText } from '../field-type.js';
import { readNumber } from '../read-number.js';

export const number = {
  id: 'number',
  label: 'number',
  takes: 'a number',
  json: 'number',
  has: 'unit',
  fits: (value) => typeof value === 'number' && Number.isFinite(value),
  read: (words, { unit }) => readNumber(words, unit),
  write: writeText,
  exchange: 'number',
  editor: 'number',
} as const satisfies FieldType;
