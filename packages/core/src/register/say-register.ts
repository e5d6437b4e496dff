import type { Scheme } from '../scheme/scheme.js';
import { phraseAt } from '../scheme/scheme.js';
import type { Column, Condition, Gathering, TestSort, WayStep } from './register.js';
import { findOffer } from './shows/shows.js';

const gatheringWords: Record<Gathering, string> = { list: '', count: 'how many', least: 'least', most: 'most', worst: 'worst' };

/** "is verified by → satisfies". */
export function sayWay({ linkKinds, kinds }: Scheme, way: readonly WayStep[]): string {
  return way
    .map(({ linkKind, end, kinds: to }) => {
      const kind = linkKinds.find(({ id }) => id === linkKind);
      const phrase = kind ? phraseAt(kind, end) : linkKind;
      const names = (to ?? []).map((id) => kinds.find((one) => one.id === id)?.label.toLowerCase() ?? id);
      return names.length > 0 ? `${phrase} ${names.join(' or ')}` : phrase;
    })
    .join(' → ');
}

/** What heads a column: its own name, or what it shows in words: "is verified by → Latest result, worst". */
export function sayColumn(scheme: Scheme, { label, way, shown, as }: Omit<Column, 'id'>): string {
  if (label) return label;
  const own = findOffer(scheme, shown)?.label ?? shown.of ?? shown.sort;
  if (way.length === 0) return own;
  const along = sayWay(scheme, way);
  if (as === 'count') return `${along}: how many`;
  if (shown.sort === 'reference' && as === 'list') return along;
  return `${along} → ${own}${gatheringWords[as] && `, ${gatheringWords[as]}`}`;
}

const testWords: Record<TestSort, string> = {
  is: 'is',
  isNot: 'is not',
  says: 'says',
  saysNot: 'does not say',
  atLeast: 'is at least',
  atMost: 'is at most',
  above: 'is above',
  given: 'is given',
  missing: 'is missing',
};
export const sayTest = (test: TestSort): string => testWords[test];

/** Values beyond which a sentence is not read. */
const MOST_SAID = 8;

/** "whose Priority is High or Medium"; through links: "with some “is verified by” whose Latest result is failed". */
export function sayCondition(scheme: Scheme, { way, of, shown, test, values }: Condition): string {
  const own = findOffer(scheme, shown)?.label ?? shown.of ?? shown.sort;
  const said = values.map((value) => (test === 'says' || test === 'saysNot' ? `“${value}”` : value));
  const words = said.length > MOST_SAID ? `${said.slice(0, MOST_SAID - 2).join(', ')} or one of ${said.length - MOST_SAID + 2} more` : said.join(' or ');
  const asked = `${own} ${testWords[test]}${test === 'given' || test === 'missing' ? '' : ` ${words || '…'}`}`;
  if (way.length === 0) return `whose ${asked}`;
  const isEnd = shown.sort === 'reference' && test === 'given';
  return `with ${of} “${sayWay(scheme, way)}”${isEnd ? '' : ` whose ${asked}`}`;
}

/** Pixels that a column is given until somebody gives it others. */
export function columnWidth(
  { way, shown, as, width, tally }: Pick<Column, 'way' | 'shown' | 'as' | 'width' | 'tally'>,
  type: string | null | undefined,
): number {
  if (width !== undefined) return width;
  if (shown.sort === 'reference' && way.length === 0) return 92;
  if (shown.sort === 'title' && way.length === 0) return 300;
  if (shown.sort === 'text') return 380;
  if (shown.sort === 'usage') return 260;
  if (as === 'count' || type === 'number') return 96;
  // A day, and a word before it where it is one of many.
  if (type === 'moment') return tally ? 136 : 104;
  return way.length > 0 ? 170 : 132;
}
