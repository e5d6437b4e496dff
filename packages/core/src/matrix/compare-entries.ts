import type { PackedEntries } from './pack-entries.js';

/** What stands in a matrix at one moment. Ways are told apart by their words; usages by the ids on their paths. */
export interface MatrixMoment {
  entries: PackedEntries;
  ways: readonly string[];
  usagePaths: readonly (readonly string[])[];
}

/** Marks of a comparison. */
export const comparedMarks = ['stayed', 'came', 'went'] as const;
export const WENT = 2;

/** Ways that two moments may have between them: marks of a matrix are fewer. */
const WAYS = 64;

/** What stood in a matrix and stands there: each entry once, its mark being whether it stayed, came or went. Usages are those of both moments. */
export function compareEntries(then: MatrixMoment, now: MatrixMoment): { entries: PackedEntries; usagePaths: string[][]; counts: [number, number, number] } {
  const usagePaths: string[][] = [];
  const placeOfPath = new Map<string, number>();
  const placesOf = (paths: MatrixMoment['usagePaths']) =>
    paths.map((path) => {
      const key = path.join(' ');
      let place = placeOfPath.get(key);
      if (place === undefined) placeOfPath.set(key, (place = usagePaths.push([...path]) - 1));
      return place;
    });
  const ways = [...new Set([...now.ways, ...then.ways])];
  const columns = Math.max(0, ...[now, then].map(({ entries }) => entries.column.reduce((most, one) => Math.max(most, one), 0))) + 1;
  const sides = [now, then].map((moment) => ({
    ...moment.entries,
    count: moment.entries.row.length,
    way: moment.ways.map((one) => ways.indexOf(one)),
    place: placesOf(moment.usagePaths),
  }));
  const useOf = (place: readonly number[], use: number) => (use < 0 ? -1 : place[use]!);
  // Few entries hold in one use only: those have a text for a key, the others a number.
  const keyOf = ({ row, column, mark, rowUse, columnUse, way, place }: (typeof sides)[number], at: number): number | string => {
    const cell = (row[at]! * columns + column[at]!) * WAYS + way[mark[at]!]!;
    return rowUse[at]! < 0 && columnUse[at]! < 0 ? cell : `${cell} ${useOf(place, rowUse[at]!)} ${useOf(place, columnUse[at]!)}`;
  };
  const [present, past] = sides as [(typeof sides)[number], (typeof sides)[number]];
  const before = new Set<number | string>();
  for (let at = 0; at < past.count; at++) before.add(keyOf(past, at));
  const taken = new Set<number | string>();
  const most = present.count + past.count;
  const entries: PackedEntries = {
    ...{ row: new Int32Array(most), column: new Int32Array(most), mark: new Uint8Array(most), suspect: new Uint8Array(most) },
    ...{ rowUse: new Int32Array(most), columnUse: new Int32Array(most) },
  };
  const counts: [number, number, number] = [0, 0, 0];
  let count = 0;
  const put = (side: (typeof sides)[number], at: number, mark: number) => {
    entries.row[count] = side.row[at]!;
    entries.column[count] = side.column[at]!;
    entries.mark[count] = mark;
    entries.suspect[count] = mark === WENT ? 0 : side.suspect[at]!;
    entries.rowUse[count] = useOf(side.place, side.rowUse[at]!);
    entries.columnUse[count++] = useOf(side.place, side.columnUse[at]!);
    counts[mark]!++;
  };
  for (let at = 0; at < present.count; at++) {
    const key = keyOf(present, at);
    put(present, at, before.has(key) ? 0 : 1);
    taken.add(key);
  }
  for (let at = 0; at < past.count; at++) if (!taken.has(keyOf(past, at))) put(past, at, WENT);
  const cut = <List extends Int32Array | Uint8Array>(list: List): List => list.slice(0, count) as List;
  return {
    usagePaths,
    counts,
    entries: {
      ...{ row: cut(entries.row), column: cut(entries.column), mark: cut(entries.mark), suspect: cut(entries.suspect) },
      ...{ rowUse: cut(entries.rowUse), columnUse: cut(entries.columnUse) },
    },
  };
}
