import { type FieldType, isText, writeText } from '../field-type.js';
import { readDate } from '../read-date.js';

const DAY = '^\\d{4}-\\d\\d-\\d\\d$';

/** A day of the calendar, as 2026-11-27. */
export const date = {
  id: 'date',
  label: 'day',
  takes: 'a day such as 2026-11-27',
  json: 'string',
  fits: (value) => isText(value) && new RegExp(DAY).test(value) && !Number.isNaN(Date.parse(value)),
  unfit: { unless: DAY },
  read: (words) => {
    const day = readDate(words);
    return day
      ? { value: day }
      : { value: null, problem: `"${words}" is no date that can be read for sure, such as 2026-03-14 or 14 March 2026; the field stays empty` };
  },
  write: writeText,
  exchange: 'date',
  editor: 'day',
} as const satisfies FieldType;
