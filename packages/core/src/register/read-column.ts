import type { Column, Condition, Gathering, WayStep } from './register.js';
import type { RegisterGround, Value, ValueType } from './shows/show.js';
import { findOffer, findShow } from './shows/shows.js';

/** What a column has for an item: a value, or those of the items that its way leads to. */
export type ColumnValue = Value;

/** Items that a way leads to from one, each once, in reading order; the item itself where it has no steps. */
export function followWay(ground: RegisterGround, node: number, way: readonly WayStep[]): number[] {
  let at = [node];
  for (const { linkKind, end, kinds } of way) {
    const kind = ground.scheme.linkKinds.findIndex(({ id }) => id === linkKind);
    const found = new Set<number>();
    for (const one of at)
      ground.graph.forEachLink(one, end === 'from' ? 'out' : 'in', (link, other) => {
        if (ground.graph.kind[link] !== kind || ground.items[other]!.withdrawn) return;
        if (!kinds || kinds.length === 0 || kinds.includes(ground.items[other]!.kind)) found.add(other);
      });
    at = [...found];
  }
  return at.length > 1 ? at.sort((a, b) => ground.rowOf[a]! - ground.rowOf[b]!) : at;
}

/** What a column reads of items, and of which type that is. Nothing where what it shows is not in the project. */
export interface ColumnReader {
  type: ValueType;
  /** Values in their order, the least first. */
  order?: ReadonlyMap<string, number>;
  read: (node: number) => ColumnValue;
}

export function readerOf(ground: RegisterGround, { way, shown, as }: Pick<Column, 'way' | 'shown' | 'as'>): ColumnReader | undefined {
  const [show, offer] = [findShow(shown.sort), findOffer(ground.scheme, shown)];
  if (!show || !offer) return undefined;
  const order = offer.values && new Map(offer.values.map((value, place) => [value, place]));
  const own = (node: number) => show.read(ground, node, shown.of ?? '');
  if (way.length === 0) return { type: offer.type, ...(order && { order }), read: own };
  if (as === 'count') return { type: 'number', read: (node) => followWay(ground, node, way).length };
  const gather = gatherers[as];
  return {
    type: as === 'list' ? 'several' : offer.type,
    ...(order && { order }),
    read: (node) => {
      const values = followWay(ground, node, way).flatMap((one): One[] => {
        const value = own(one);
        return value === null ? [] : Array.isArray(value) ? [...(value as readonly string[])] : [value as One];
      });
      return values.length === 0 ? null : gather(values, order);
    },
  };
}

type One = string | number | boolean;
type Order = ReadonlyMap<string, number> | undefined;

const least = (values: readonly One[], order: Order): One => values.reduce((best, one) => (compareOne(one, best, order) < 0 ? one : best));
const most = (values: readonly One[], order: Order): One => values.reduce((best, one) => (compareOne(one, best, order) > 0 ? one : best));

/** The values of several items as one; what is worst stands last in the order of values. */
const gatherers: Record<Exclude<Gathering, 'count'>, (values: readonly One[], order: Order) => ColumnValue> = {
  list: (values) => [...new Set(values.map(String))],
  least,
  most,
  worst: most,
};

/** Words as people sort them, with numbers in them as numbers. */
const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

function compareOne(a: One, b: One, order: Order): number {
  if (order)
    return (order.get(String(a)) ?? Number.MAX_SAFE_INTEGER) - (order.get(String(b)) ?? Number.MAX_SAFE_INTEGER) || collator.compare(String(a), String(b));
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return collator.compare(String(a), String(b));
}

/** Order of two values of a column; nothing stands last either way, and is told apart by whoever sorts. */
export function compareValues(a: ColumnValue, b: ColumnValue, order?: Order): number {
  if (a === null || b === null) return (a === null ? 1 : 0) - (b === null ? 1 : 0);
  const [one, other] = [asList(a), asList(b)];
  for (let at = 0; at < Math.min(one.length, other.length); at++) {
    const by = compareOne(one[at]!, other[at]!, order);
    if (by !== 0) return by;
  }
  return one.length - other.length;
}

const asList = (value: Exclude<ColumnValue, null>): readonly One[] => (Array.isArray(value) ? (value as readonly string[]) : [value as One]);

/** A value in words, as conditions and groups say it. */
export function sayValue(value: ColumnValue): string {
  if (value === null) return '';
  if (Array.isArray(value)) return value.join(', ');
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return String(value);
}

/** Whether an item passes a condition; nothing where what is asked for is not in the project. */
export function passerOf(ground: RegisterGround, { way, of, shown, test, values }: Condition): ((node: number) => boolean) | undefined {
  const reader = readerOf(ground, { way: [], shown, as: 'list' });
  if (!reader) return undefined;
  const isPassed = testers[test](values, reader);
  const one = (node: number) => isPassed(reader.read(node));
  if (way.length === 0) return one;
  return (node) => {
    const ends = followWay(ground, node, way);
    if (of === 'some') return ends.some(one);
    return of === 'every' ? ends.every(one) : !ends.some(one);
  };
}

type Tester = (values: readonly string[], reader: ColumnReader) => (value: ColumnValue) => boolean;

const wordsOf = (value: ColumnValue): readonly string[] => (value === null ? [] : Array.isArray(value) ? (value as readonly string[]) : [sayValue(value)]);

const is: Tester = (values, { type }) => {
  const wanted = new Set(values.map((one) => one.toLowerCase()));
  // A moment is of the day that it begins with.
  return (value) => wordsOf(value).some((one) => wanted.has((type === 'moment' ? one.slice(0, 10) : one).toLowerCase()));
};
const says: Tester = (values) => {
  const wanted = values.map((one) => one.toLowerCase());
  return (value) => {
    const text = sayValue(value).toLowerCase();
    return wanted.some((one) => text.includes(one));
  };
};
const reaches =
  (sign: 1 | -1): Tester =>
  ([bound = ''], { type, order }) => {
    const limit: One = type === 'number' ? Number(bound) : bound;
    return (value) => {
      if (value === null || bound === '') return false;
      return asList(value).some((one) => {
        // A day that is the last to pass ends at midnight.
        const met = type === 'moment' ? String(one).slice(0, bound.length) : one;
        return sign * compareOne(met, limit, order) >= 0;
      });
    };
  };
const not =
  (tester: Tester): Tester =>
  (values, reader) => {
    const test = tester(values, reader);
    return (value) => !test(value);
  };

const testers: Record<Condition['test'], Tester> = {
  is,
  isNot: not(is),
  says,
  saysNot: not(says),
  atLeast: reaches(1),
  atMost: reaches(-1),
  given: () => (value) => value !== null,
  missing: () => (value) => value === null,
};
