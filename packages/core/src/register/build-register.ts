import { type ColumnReader, type ColumnValue, compareValues, passerOf, readerOf, sayValue } from './read-column.js';
import type { Condition, RegisterWhat, RegisterWhere } from './register.js';
import type { RegisterGround } from './shows/show.js';

export interface RegisterGroup {
  /** Values of the grouping columns, in their order. */
  values: string[];
  count: number;
}

export interface Register {
  /** Items in the order of rows. */
  nodes: Int32Array;
  /** Of an outline: how deep each stands, and whether it is there only because of what stands below it. */
  depth?: Uint8Array;
  isContext?: Uint8Array;
  /** Groups one after the other, in the order of rows. */
  groups: RegisterGroup[];
  /** Items that pass, without those that are there only for what stands below them. */
  total: number;
  readers: (ColumnReader | undefined)[];
}

/** Items that pass what is asked of them; conditions that ask for what is not in the project are left out, by their places. */
export function filterItems(ground: RegisterGround, conditions: readonly Condition[], match: 'all' | 'any'): (node: number) => boolean {
  const passers = conditions.flatMap((condition) => passerOf(ground, condition) ?? []);
  if (passers.length === 0) return () => true;
  return match === 'all' ? (node) => passers.every((passes) => passes(node)) : (node) => passers.some((passes) => passes(node));
}

/** The rows of a register: which items, in which order, in which groups. `mayShow` is what else they must pass, such as a lens. */
export function buildRegister(ground: RegisterGround, what: RegisterWhat, where: RegisterWhere, mayShow: (node: number) => boolean = () => true): Register {
  const { items, rowOf } = ground;
  const [kinds, collections] = [new Set(what.kinds), new Set(where.collections)];
  const isInScope = scopeOf(ground, where);
  const passes = filterItems(ground, what.conditions, what.match);
  const found: number[] = [];
  for (let node = 0; node < items.length; node++) {
    const { withdrawn, heading, kind, collection } = items[node]!;
    if (withdrawn || heading || (kinds.size > 0 && !kinds.has(kind)) || (collections.size > 0 && !collections.has(collection))) continue;
    if (isInScope(node) && mayShow(node) && passes(node)) found.push(node);
  }
  const byPlace = (a: number, b: number) => rowOf[a]! - rowOf[b]!;
  found.sort(byPlace);
  const readers = what.columns.map((column) => readerOf(ground, column));
  const readerNamed = (id: string) => readers[what.columns.findIndex((column) => column.id === id)];
  if (what.shape === 'outline') return { ...outlineOf(ground, found), groups: [], total: found.length, readers };
  const keys = [
    ...what.group.flatMap((id) => readerNamed(id) ?? []).map((reader) => ({ reader, descending: false })),
    ...what.sort.flatMap(({ column, descending }) => {
      const reader = readerNamed(column);
      return reader ? [{ reader, descending }] : [];
    }),
  ];
  sortNodes(found, keys, byPlace);
  return {
    nodes: Int32Array.from(found),
    groups: groupsOf(
      found,
      what.group.flatMap((id) => readerNamed(id) ?? []),
    ),
    total: found.length,
    readers,
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

function sortNodes(nodes: number[], keys: readonly { reader: ColumnReader; descending: boolean }[], byPlace: (a: number, b: number) => number): void {
  if (keys.length === 0) return;
  // Each value is read once, not once for each comparison.
  const columns = keys.map(({ reader }) => new Map<number, ColumnValue>(nodes.map((node) => [node, reader.read(node)])));
  nodes.sort((a, b) => {
    for (let at = 0; at < keys.length; at++) {
      const { reader, descending } = keys[at]!;
      const [one, other] = [columns[at]!.get(a)!, columns[at]!.get(b)!];
      // What has no value stands last, whichever way it is sorted.
      if (one === null || other === null) {
        if (one !== other) return one === null ? 1 : -1;
        continue;
      }
      const by = compareValues(one, other, reader.order);
      if (by !== 0) return descending ? -by : by;
    }
    return byPlace(a, b);
  });
}

function groupsOf(nodes: readonly number[], readers: readonly ColumnReader[]): RegisterGroup[] {
  if (readers.length === 0) return [];
  const groups: RegisterGroup[] = [];
  for (const node of nodes) {
    const values = readers.map((reader) => sayValue(reader.read(node)));
    const last = groups.at(-1);
    if (last && values.every((value, at) => value === last.values[at])) last.count++;
    else groups.push({ values, count: 1 });
  }
  return groups;
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
