import type { Column, Condition, Gathering, WayStep } from './register.js';
import type { RegisterGround, RowUse, Value, ValueType } from './shows/show.js';
import { findOffer, findShow } from './shows/shows.js';

/** What a column has for an item: a value, or those of the items that its way leads to. */
export type ColumnValue = Value;

/** Items that a way leads to from one, or from one use of it, each once, in reading order; the item itself where it has no steps. */
export function followWay(ground: RegisterGround, node: number, way: readonly WayStep[], use?: RowUse): number[] {
  const { uses } = ground;
  let at = [node];
  for (const [step, { linkKind, end, kinds }] of way.entries()) {
    const kind = ground.scheme.linkKinds.findIndex(({ id }) => id === linkKind);
    const found = new Set<number>();
    for (const one of at)
      ground.graph.forEachLink(one, end === 'from' ? 'out' : 'in', (link, other) => {
        if (ground.graph.kind[link] !== kind || ground.items[other]!.withdrawn) return;
        if (step === 0 && use && uses && !uses.holds(link, end, use)) return;
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
  read: (node: number, use?: RowUse) => ColumnValue;
}

export function readerOf(ground: RegisterGround, { way, shown, as }: Pick<Column, 'way' | 'shown' | 'as'>): ColumnReader | undefined {
  const [show, offer] = [findShow(shown.sort), findOffer(ground.scheme, shown)];
  if (!show || !offer) return undefined;
  const order = offer.values && new Map(offer.values.map((value, place) => [value, place]));
  const own = (node: number, use?: RowUse) => show.read(ground, node, shown.of ?? '', use);
  if (way.length === 0) return { type: offer.type, ...(order && { order }), read: own };
  if (as === 'count') return { type: 'number', read: (node, use) => followWay(ground, node, way, use).length };
  const gather = gatherers[as];
  return {
    type: as === 'list' ? 'several' : offer.type,
    ...(order && { order }),
    read: (node, use) => {
      const values = followWay(ground, node, way, use).flatMap((one): One[] => {
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
export function passerOf(ground: RegisterGround, { way, of, shown, test, values }: Condition): ((node: number, use?: RowUse) => boolean) | undefined {
  const one = shown.sort === 'text' ? textPasser(ground, test, values) : valuePasser(ground, { shown, test, values });
  if (!one || way.length === 0) return one;
  return (node, use) => {
    const ends = followWay(ground, node, way, use);
    if (of === 'some') return ends.some((end) => one(end));
    return of === 'every' ? ends.every((end) => one(end)) : !ends.some((end) => one(end));
  };
}

function valuePasser(ground: RegisterGround, { shown, test, values }: Pick<Condition, 'shown' | 'test' | 'values'>) {
  const reader = readerOf(ground, { way: [], shown, as: 'list' });
  if (!reader) return undefined;
  const isPassed = testers[test](values, reader);
  return (node: number, use?: RowUse) => isPassed(reader.read(node, use));
}

/** What may be asked of texts. */
export const textTests = ['says', 'saysNot', 'given', 'missing'] as const satisfies readonly Condition['test'][];

/** Texts are not in memory: whoever asks has them looked through for words. */
function textPasser({ textSays }: RegisterGround, test: Condition['test'], values: readonly string[]): ((node: number) => boolean) | undefined {
  if (!textSays || !(textTests as readonly string[]).includes(test)) return undefined;
  const isGiven = test === 'given' || test === 'missing';
  const found = isGiven ? [textSays('')] : values.map(textSays);
  const isWanted = test === 'says' || test === 'given';
  return (node) => found.some((set) => set.has(node)) === isWanted;
}

/** Words that texts are asked for by some conditions; an empty one asks whether there is a text. */
export const wordsOfTexts = (conditions: readonly Condition[]): string[] => [
  ...new Set(conditions.flatMap(({ shown, test, values }) => (shown.sort !== 'text' ? [] : test === 'given' || test === 'missing' ? [''] : values))),
];

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
  (sign: 1 | -1, isStrict = false): Tester =>
  ([bound = ''], { type, order }) => {
    const limit: One = type === 'number' ? Number(bound) : bound;
    return (value) => {
      if (value === null || bound === '') return false;
      return asList(value).some((one) => {
        // A day that is the last to pass ends at midnight.
        const met = type === 'moment' ? String(one).slice(0, bound.length) : one;
        const by = sign * compareOne(met, limit, order);
        return isStrict ? by > 0 : by >= 0;
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
  above: reaches(1, true),
  given: () => (value) => value !== null,
  missing: () => (value) => value === null,
};
