import { fieldTypeOf } from '../../fields/field-types.js';
import type { Scheme } from '../../scheme/scheme.js';
import type { AnyShow, Offer, ValueType } from './show.js';

const types: Partial<Record<string, ValueType>> = { number: 'number', date: 'moment', yesNo: 'yesNo', one: 'choice', several: 'several' };

/** A field of items, whichever kind has it: kinds may have one in common. */
export const field: AnyShow = {
  sort: 'field',
  offers: ({ kinds }) => {
    const offers = new Map<string, Offer>();
    for (const kind of kinds)
      for (const { id, label, type, options } of kind.fields) {
        const known = offers.get(id);
        const values = [...new Set([...(known?.values ?? []), ...(options ?? [])])];
        offers.set(id, { of: id, label, type: types[typeOf(type)] ?? 'words', ...(values.length > 0 && { values }) });
      }
    return [...offers.values()];
  },
  read: ({ fieldsOf, uses }, node, of, use) => {
    const inUse = use && uses ? uses.fieldsIn(use)[of] : undefined;
    const value = inUse ?? fieldsOf(node)[of];
    return value === undefined || value === '' || (Array.isArray(value) && value.length === 0) ? null : value;
  },
};

const typeOf = (type: Scheme['kinds'][number]['fields'][number]['type']): string => {
  const { editor } = fieldTypeOf(type);
  return editor === 'day' ? 'date' : editor;
};
