import { format } from 'date-fns';
import { type ColumnReader, type ColumnValue, compareValues, sayValue } from './read-column.js';
import type { Tally } from './register.js';
import type { ValueType } from './shows/show.js';

/** What can be said of many values of a type at once. */
export function talliesOf(type: ValueType | null): Tally['as'][] {
  const common: Tally['as'][] = ['given', 'missing', 'different'];
  if (type === 'number') return [...common, 'total', 'mean', 'least', 'most'];
  if (type === 'moment') return [...common, 'least', 'most'];
  return type === 'choice' || type === 'yesNo' || type === 'several' ? [...common, 'least', 'most', 'share'] : common;
}

/**
 * What some values say at once: how many are given, are missing or differ; their sum, their mean, the least and the most of those that are given
 * (words in their order); the share of one value among all rows, in per cent. Null where nothing can be said, such as a mean of no numbers.
 */
export function tallyOf({ as, of }: Tally, values: readonly ColumnValue[], { type, order }: Pick<ColumnReader, 'type' | 'order'>): number | string | null {
  const given = values.filter((value) => value !== null);
  if (as === 'given') return given.length;
  if (as === 'missing') return values.length - given.length;
  if (as === 'different') return new Set(given.map(sayValue)).size;
  if (as === 'share') {
    if (values.length === 0 || of === undefined) return null;
    const hit = given.filter((value) => (Array.isArray(value) ? value.includes(of) : sayValue(value) === of));
    return Math.round((hit.length / values.length) * 1000) / 10;
  }
  if (given.length === 0) return null;
  if (as === 'total' || as === 'mean') {
    const numbers = given.filter((value) => typeof value === 'number');
    if (type !== 'number' || numbers.length === 0) return null;
    const total = numbers.reduce((sum, value) => sum + value, 0);
    // Sums of decimals are said as people add them: .1 and .2 are .3.
    return Number((as === 'total' ? total : total / numbers.length).toPrecision(12));
  }
  const sign = as === 'least' ? 1 : -1;
  const best = given.reduce((one, other) => (sign * compareValues(other, one, order) < 0 ? other : one));
  return typeof best === 'number' ? best : sayValue(best);
}

const words: Record<Tally['as'], string> = {
  given: 'given',
  missing: 'missing',
  different: 'different',
  total: 'in all',
  mean: 'mean',
  least: 'least',
  most: 'most',
  share: '%',
};

/** "Mean", as a choice; "mean 3.5", "62 % High" as it stands below a column. */
export const sayTally = ({ as, of }: Tally): string => (as === 'share' ? `share of ${of ?? '…'}` : words[as]);

export function sayTallied(tally: Tally, value: number | string | null): string {
  if (value === null) return '';
  // A moment is said by its day, as cells say it.
  const sayText = (text: string) => (/^\d{4}-\d\d-\d\dT/.test(text) ? format(new Date(text), 'd MMM yyyy') : text);
  const said = typeof value === 'number' ? new Intl.NumberFormat('en-GB', { maximumFractionDigits: 3 }).format(value) : sayText(value);
  if (tally.as === 'share') return `${said} % ${tally.of}`;
  return ['given', 'missing', 'different', 'total'].includes(tally.as) ? `${said} ${words[tally.as]}` : `${words[tally.as]} ${said}`;
}
