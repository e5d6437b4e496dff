// By their own modules: the whole library is three hundred files to load.
import { isValid } from 'date-fns/isValid';
import { parse } from 'date-fns/parse';

type Parts = Record<string, string | undefined>;

/** How dates are written that can be read in one way only: year, month by number or name, day. */
const WRITINGS: readonly RegExp[] = [
  /^(?<y>\d{4})-(?<m>\d{2})-(?<d>\d{2})(?:$|[T ])/,
  /^(?<d>\d{1,2})\.(?<m>\d{1,2})\.(?<y>\d{4})$/,
  /^(?<d>\d{1,2})\.? (?<name>\p{L}{3,}) (?<y>\d{4})$/u,
  /^(?<name>\p{L}{3,}) (?<d>\d{1,2}), (?<y>\d{4})$/u,
  /^(?<d>\d{1,2})-(?<name>\p{L}{3,})-(?<y>\d{4})$/u,
  /^(?<y>\d{4})[/.](?<m>\d{1,2})[/.](?<d>\d{1,2})$/,
  /^(?<y>\d{4})(?<m>\d{2})(?<d>\d{2})$/,
];
const SLASHES = /^(\d{1,2})\/(\d{1,2})\/(\d{4})$/;

/** A date as yyyy-mm-dd; undefined for none, for one that the calendar lacks, and where day and month could change places. */
export function readDate(text: string): string | undefined {
  for (const writing of WRITINGS) {
    const parts: Parts | undefined = writing.exec(text)?.groups;
    if (parts) return asDay(Number(parts.y), parts.name === undefined ? Number(parts.m) : findMonth(parts.name), Number(parts.d));
  }
  const slashes = SLASHES.exec(text);
  if (!slashes) return undefined;
  const [first, second, year] = [Number(slashes[1]), Number(slashes[2]), Number(slashes[3])];
  if (first <= 12 && second <= 12 && first !== second) return undefined;
  return first > 12 ? asDay(year, second, first) : asDay(year, first, second);
}

const months = new Map<string, number>();

/** 1 for "January" and "Jan"; 0 for what is no month. */
function findMonth(name: string): number {
  const known = months.get(name);
  if (known !== undefined) return known;
  const date = ['MMMM', 'MMM'].map((pattern) => parse(name, pattern, new Date(2000, 0, 1))).find(isValid);
  const month = date ? date.getMonth() + 1 : 0;
  if (months.size < 100) months.set(name, month);
  return month;
}

function asDay(year: number, month: number, day: number): string | undefined {
  const date = new Date(Date.UTC(year, month - 1, day));
  if (year < 1000 || date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day) return undefined;
  return date.toISOString().slice(0, 10);
}
