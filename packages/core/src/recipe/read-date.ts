import { isValid, parse } from 'date-fns';

/** How dates are written that can be read in one way only. */
const PATTERNS = [
  'd.M.yyyy',
  'd. MMMM yyyy',
  'd MMMM yyyy',
  'd MMM yyyy',
  'MMMM d, yyyy',
  'MMM d, yyyy',
  'd-MMM-yyyy',
  'd-MMMM-yyyy',
  'yyyy/M/d',
  'yyyy.M.d',
  'yyyyMMdd',
];
const MIDNIGHT = new Date(2000, 0, 1);

/** A date as yyyy-mm-dd; undefined for none, for one that the calendar lacks, and where day and month could change places. */
export function readDate(text: string): string | undefined {
  const iso = /^(\d{4})-(\d{2})-(\d{2})(?:$|[T ])/.exec(text);
  if (iso) return format(parse(iso[0].slice(0, 10), 'yyyy-MM-dd', MIDNIGHT));
  const slashes = /^(\d{1,2})\/(\d{1,2})\/(\d{4})$/.exec(text);
  if (slashes) {
    const [first, second] = [Number(slashes[1]), Number(slashes[2])];
    if (first <= 12 && second <= 12 && first !== second) return undefined;
    return format(parse(text, first > 12 ? 'd/M/yyyy' : 'M/d/yyyy', MIDNIGHT));
  }
  for (const pattern of PATTERNS) {
    const date = format(parse(text, pattern, MIDNIGHT));
    if (date) return date;
  }
  return undefined;
}

function format(date: Date): string | undefined {
  if (!isValid(date) || date.getFullYear() < 1000) return undefined;
  const two = (number: number) => String(number).padStart(2, '0');
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
