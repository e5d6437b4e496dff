import type { FieldType } from '../field-type.js';

export const yesNo = {
  id: 'yesNo',
  label: 'yes or no',
  takes: 'yes or no',
  json: 'boolean',
  fits: (value) => typeof value === 'boolean',
  read: (words) =>
    /^(yes|y|true|1|x)$/i.test(words)
      ? { value: true }
      : /^(no|n|false|0|-)$/i.test(words)
        ? { value: false }
        : { value: null, problem: `"${words}" is neither yes nor no; the field stays empty` },
  write: (value) => (value === true ? 'yes' : value === false ? 'no' : ''),
  exchange: 'yesNo',
  editor: 'yesNo',
} as const satisfies FieldType;
