import { type ColumnReader, type ColumnValue, compareValues, passerOf, readerOf, sayValue } from './read-column.js';
import type { Condition, RegisterWhat, RegisterWhere } from './register.js';
import type { RegisterGround, RowUse } from './shows/show.js';
import { tallyOf } from './tally.js';

export interface RegisterGroup {
  /** Values of the grouping columns, in their order. */
  values: string[];
  count: number;
  /** What each column says of its rows at once; nothing where it is not asked. */
  tallies: (string | number | null)[];
}

export interface Register {
  /** Items in the order of rows. */
  nodes: Int32Array;
  /** Of a register of uses: the use that each row is; nothing for what is used in nothing. */
  uses?: (RowUse | undefined)[];
  /** Of an outline: how deep each stands, and whether it is there only because of what stands below it. */
  depth?: Uint8Array;
  isContext?: Uint8Array;
  /** Groups one after the other, in the order of rows. */
  groups: RegisterGroup[];
  /** What each column says of all rows at once. */
  tallies: RegisterGroup['tallies'];
  /** Rows that pass, without those that are there only for what stands below them. */
  total: number;
  readers: (ColumnReader | undefined)[];
}

interface Row {
  node: number;
  use?: RowUse;
}

/** Items that pass what is asked of them; conditions that ask for what is not in the project are left out, by their places. */
export function filterItems(ground: RegisterGround, conditions: readonly Condition[], match: 'all' | 'any'): (node: number, use?: RowUse) => boolean {
  const passers = conditions.flatMap((condition) => passerOf(ground, condition) ?? []);
  if (passers.length === 0) return () => true;
  return match === 'all' ? (node, use) => passers.every((passes) => passes(node, use)) : (node, use) => passers.some((passes) => passes(node, use));
}

/** The rows of a register: which items, in which order, in which groups. `mayShow` is what else they must pass, such as a lens. */
export function buildRegister(ground: RegisterGround, what: RegisterWhat, where: RegisterWhere, mayShow: (node: number) => boolean = () => true): Register {
  const { items, rowOf } = ground;
  const [kinds, collections] = [new Set(what.kinds), new Set(where.collections)];
  const isInScope = scopeOf(ground, where);
  const passes = filterItems(ground, what.conditions, what.match);
  const usesOf = usesWithin(ground, what, where);
  const found: Row[] = [];
  for (let node = 0; node < items.length; node++) {
    const { withdrawn, heading, kind, collection } = items[node]!;
    if (withdrawn || heading || (kinds.size > 0 && !kinds.has(kind)) || (collections.size > 0 && !collections.has(collection))) continue;
    if (isInScope(node) && mayShow(node)) for (const row of usesOf(node)) if (passes(node, row.use)) found.push(row);
  }
  found.sort((a, b) => rowOf[a.node]! - rowOf[b.node]!);
  const readers = what.columns.map((column) => readerOf(ground, column));
  const readerNamed = (id: string) => readers[what.columns.findIndex((column) => column.id === id)];
  const tally = (rows: readonly Row[]) =>
    what.columns.map(({ tally: asked }, at) =>
      asked && readers[at]
        ? tallyOf(
            asked,
            rows.map(({ node, use }) => readers[at]!.read(node, use)),
            readers[at],
          )
        : null,
    );
  const tallies = tally(found);
  if (what.shape === 'outline')
    return {
      ...outlineOf(
        ground,
        found.map(({ node }) => node),
      ),
      ...{ groups: [], tallies, total: found.length, readers },
    };
  const keys = [
    ...what.group.flatMap((id) => readerNamed(id) ?? []).map((reader) => ({ reader, descending: false })),
    ...what.sort.flatMap(({ column, descending }) => {
      const reader = readerNamed(column);
      return reader ? [{ reader, descending }] : [];
    }),
  ];
  const rows = sortRows(found, keys);
  return {
    nodes: Int32Array.from(rows, ({ node }) => node),
    ...(what.rows === 'usages' && { uses: rows.map(({ use }) => use) }),
    groups: groupsOf(
      rows,
      what.group.flatMap((id) => readerNamed(id) ?? []),
      tally,
    ),
    ...{ tallies, total: rows.length, readers },
  };
}

function scopeOf({ items }: RegisterGround, { below }: RegisterWhere): (node: number) => boolean {
  if (below.length === 0) return () => true;
  const tops = new Set(below.map(Number));
  return (node) => {
    for (let at = node; at >= 0; at = items[at]!.parent) if (tops.has(at)) return true;
    return false;
  };
}

/** Rows of an item: itself, or each of its uses; none where it is not used in what is looked at. An outline shows items, not their uses. */
function usesWithin({ uses }: RegisterGround, { rows, shape }: RegisterWhat, { usedIn = [] }: RegisterWhere): (node: number) => Row[] {
  if (!uses || (rows !== 'usages' && usedIn.length === 0)) return (node) => [{ node }];
  const systems = new Set(usedIn);
  return (node) => {
    const all = uses.of(node);
    const own = usedIn.length === 0 ? all : all.filter(({ path }) => path.slice(0, -1).some((id) => systems.has(id)));
    if (rows === 'usages' && shape === 'list') return own.length > 0 || usedIn.length > 0 ? own.map((use) => ({ node, use })) : [{ node }];
    return own.length > 0 ? [{ node }] : [];
  };
}

function sortRows(rows: readonly Row[], keys: readonly { reader: ColumnReader; descending: boolean }[]): readonly Row[] {
  if (keys.length === 0) return rows;
  // Each value is read once, not once for each comparison.
  const columns = keys.map(({ reader }) => rows.map(({ node, use }): ColumnValue => reader.read(node, use)));
  const order = rows
    .map((_, at) => at)
    .sort((a, b) => {
      for (let at = 0; at < keys.length; at++) {
        const { reader, descending } = keys[at]!;
        const [one, other] = [columns[at]![a]!, columns[at]![b]!];
        // What has no value stands last, whichever way it is sorted.
        if (one === null || other === null) {
          if (one !== other) return one === null ? 1 : -1;
          continue;
        }
        const by = compareValues(one, other, reader.order);
        if (by !== 0) return descending ? -by : by;
      }
      return a - b;
    });
  return order.map((at) => rows[at]!);
}

function groupsOf(rows: readonly Row[], readers: readonly ColumnReader[], tally: (rows: readonly Row[]) => RegisterGroup['tallies']): RegisterGroup[] {
  if (readers.length === 0) return [];
  const groups: { values: string[]; rows: Row[] }[] = [];
  for (const row of rows) {
    const values = readers.map((reader) => sayValue(reader.read(row.node, row.use)));
    const last = groups.at(-1);
    if (last && values.every((value, at) => value === last.values[at])) last.rows.push(row);
    else groups.push({ values, rows: [row] });
  }
  return groups.map(({ values, rows: own }) => ({ values, count: own.length, tallies: tally(own) }));
}

/** What was found together with what it stands in, as an outline. */
function outlineOf({ items, rowOf }: RegisterGround, found: readonly number[]): Pick<Register, 'nodes' | 'depth' | 'isContext'> {
  const isFound = new Set(found);
  const all = new Set(found);
  for (const node of found) for (let at = items[node]!.parent; at >= 0 && !all.has(at); at = items[at]!.parent) all.add(at);
  const nodes = Int32Array.from(all).sort((a, b) => rowOf[a]! - rowOf[b]!);
  const depthOf = new Map<number, number>();
  const depth = Uint8Array.from(nodes, (node) => {
    const own = items[node]!.parent < 0 ? 0 : (depthOf.get(items[node]!.parent) ?? -1) + 1;
    depthOf.set(node, own);
    return own;
  });
  return { nodes, depth, isContext: Uint8Array.from(nodes, (node) => (isFound.has(node) ? 0 : 1)) };
}
