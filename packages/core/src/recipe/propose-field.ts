import { fieldTypeOf } from '../fields/field-types.js';
import type { Field } from '../fields/field.js';
import type { ExchangeAttribute } from '../source/exchange.js';

export type ProposedField = Pick<Field, 'type' | 'options' | 'unit'>;

const MOST_OPTIONS = 12;
const LONGEST_OPTION = 40;
const LOOKED_AT = 2000;

/** What sort of field holds the values of a column: the narrowest type that all of them fit, blanks aside. Few short values that come again are a choice. */
export function proposeField(values: readonly string[]): ProposedField {
  const filled = values.slice(0, LOOKED_AT).flatMap((value) => value.trim() || []);
  if (filled.length === 0) return { type: 'text' };
  const all = (pattern: RegExp) => filled.every((value) => pattern.test(value));
  if (all(/^(yes|no|true|false|y|n|x|-)$/i)) return { type: 'yesNo' };
  if (all(/^\d{4}-\d{2}-\d{2}(T.*)?$/)) return { type: 'date' };
  if (all(/^[+-]?(0|[1-9]\d*)([.,]\d+)?$/)) return { type: 'number' };
  const unit = findUnit(filled);
  if (unit) return { type: 'number', unit };
  if (all(/^https?:\/\/\S+$/)) return { type: 'address' };
  if (filled.some((value) => value.includes('\n') || value.length > 200)) return { type: 'rich' };
  const options = [...new Set(filled)];
  const isChoice =
    options.length > 1 && options.length <= MOST_OPTIONS && options.length * 2 <= filled.length && options.every((option) => option.length <= LONGEST_OPTION);
  return isChoice ? { type: 'choice', options } : { type: 'text' };
}

const WITH_UNIT = /^[+\-−]?\d+(?:[.,]\d+)? ?([%°Ω\p{L}][\p{L}\d%°²³/·^-]{0,9})$/u;

/** The one unit that all values carry. */
function findUnit(values: readonly string[]): string | undefined {
  const unit = WITH_UNIT.exec(values[0]!)?.[1];
  return unit && values.every((value) => WITH_UNIT.exec(value)?.[1] === unit) ? unit : undefined;
}

/** The field that an attribute of an exchange file becomes: its own type, with the labels that may be chosen. */
export function fieldOfAttribute({ type, options }: ExchangeAttribute): ProposedField {
  return { type, ...(options?.length && fieldTypeOf(type).has === 'options' && { options }) };
}
