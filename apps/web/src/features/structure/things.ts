import type { OutlineReply } from '@coomb/contract';
import { type Dependencies, endOfLine, foldAxis, numberGroups, type Ties, tiesOf } from '@coomb/core';
import { isItemLine, type MatrixSides } from '../matrix/matrix-sides';

/** One row and column of a structure: an item, or what is folded into one. */
export interface Thing {
  /** Id of its item; things are known by it from one fold to the next. */
  id: string;
  row: number;
  name: string;
  title: string;
  /** Items that are folded into it, itself among them. */
  size: number;
  /** Dependencies within it. */
  within: number;
  /** Id of what it is a part of among what is shown; nothing at the top. */
  parent: string | undefined;
  /** Whether parts of it are folded into it. */
  isFolded: boolean;
}

export interface Structure {
  things: Thing[];
  /** Things that are left out: nothing depends on them, nor they on anything. */
  unlinked: number;
  edges: Dependencies;
  ties: Ties;
  /** Weight of the dependency of one thing on another, by `from * things + to`. */
  weightOf: ReadonlyMap<number, number>;
  /** What one thing's dependency on another consists of: outline rows of both ends, and the mark. */
  between: (one: number, other: number) => { from: number; to: number; mark: number; suspect: boolean }[];
  /** Outline rows of what a thing stands for. */
  rowsOf: (thing: number) => number[];
  /** Today's grouping: what each thing is a part of, numbered; and its names. */
  today: Int32Array;
  todayNames: string[];
}

/** How much an entry of a mark weighs, by the nodes of its row and column; or one for each pair of things, however many entries join them. */
export interface Weigh {
  of: (mark: number, row: number, column: number) => number;
  once: boolean;
}

/** Things and dependencies of a scope, at a fold; those without any dependency are left out where that is asked. Both sides of the matrix are the same scope. */
export function buildStructure(
  outline: OutlineReply,
  sides: MatrixSides,
  isFolded: (id: string) => boolean,
  linkedOnly: boolean,
  weigh: Weigh = { of: () => 1, once: false },
): Structure {
  const { row: side, cells } = sides;
  const lines = [...side.rows.keys()].filter((line) => isFolded(outline.id[side.rows[line]!]!));
  const axis = foldAxis(side, new Set(lines));
  const folded = cells.fold(axis, axis);
  const idOf = (line: number) => outline.id[side.rows[line]!]!;
  const thingOf = new Int32Array(axis.lines.length).fill(-1);
  const things: Thing[] = [];
  let unlinked = 0;
  axis.lines.forEach((line, at) => {
    // A heading whose parts are shown is only what they are a part of.
    if (axis.size[at] === 1 && !isItemLine(outline, side, line)) return;
    if (linkedOnly && folded.rowTotal(at) + folded.columnTotal(at) === 0) return void unlinked++;
    const row = side.rows[line]!;
    const parent = side.parent[line]!;
    thingOf[at] = things.length;
    things.push({
      ...{ id: idOf(line), row, title: outline.title[row]!, size: axis.size[at]!, isFolded: axis.size[at]! > 1, within: folded.at(at, at)?.count ?? 0 },
      name: outline.heading[row] ? '' : outline.reference[row]!,
      parent: parent < 0 ? undefined : idOf(parent),
    });
  });
  const [from, to, weight]: [number[], number[], number[]] = [[], [], []];
  const weightOf = new Map<number, number>();
  const thingOfLine = new Int32Array(side.rows.length).fill(-1);
  axis.lines.forEach((line, at) => thingOfLine.fill(thingOf[at]!, line, endOfLine(axis, at)));
  const nodeOf = (line: number) => outline.node[side.rows[line]!] ?? -1;
  axis.lines.forEach((_, at) => {
    const one = thingOf[at]!;
    if (one < 0) return;
    const weights = new Map<number, number>();
    for (const entry of cells.entriesOf(axis.lines[at]!, endOfLine(axis, at))) {
      const { row, column, mark } = cells.entries;
      const other = thingOfLine[column[entry]!]!;
      if (other < 0 || other === one) continue;
      const own = weigh.of(mark[entry]!, nodeOf(row[entry]!), nodeOf(column[entry]!));
      if (own > 0) weights.set(other, weigh.once ? 1 : (weights.get(other) ?? 0) + own);
    }
    for (const [other, sum] of [...weights].sort(([a], [b]) => a - b)) {
      from.push(one);
      to.push(other);
      weight.push(sum);
      weightOf.set(one * things.length + other, sum);
    }
  });
  const names = new Map<string, number>();
  const group = things.map(({ parent, row }) => {
    const key = parent ?? `collection ${outline.collection[row]}`;
    if (!names.has(key)) names.set(key, names.size);
    return names.get(key)!;
  });
  const rowOfId = new Map(outline.id.map((id, row) => [id, row]));
  const lineOfThing = new Int32Array(things.length);
  thingOf.forEach((thing, at) => {
    if (thing >= 0) lineOfThing[thing] = at;
  });
  return {
    ...{ things, weightOf, unlinked },
    edges: { nodes: things.length, from: Int32Array.from(from), to: Int32Array.from(to), weight: Float64Array.from(weight) },
    ties: tiesOf(things.length, from, to, weight),
    between: (one, other) => {
      const [at, to] = [lineOfThing[one]!, lineOfThing[other]!];
      const [first, last] = [axis.lines[to]!, endOfLine(axis, to)];
      const { row, column, mark, suspect } = cells.entries;
      return Array.from(cells.entriesOf(axis.lines[at]!, endOfLine(axis, at)))
        .filter((entry) => column[entry]! >= first && column[entry]! < last)
        .map((entry) => ({ from: side.rows[row[entry]!]!, to: side.rows[column[entry]!]!, mark: mark[entry]!, suspect: suspect[entry] === 1 }));
    },
    rowsOf: (thing) => Array.from(side.rows.subarray(axis.lines[lineOfThing[thing]!]!, endOfLine(axis, lineOfThing[thing]!))),
    today: numberGroups(group).group,
    todayNames: [...names.keys()].map((id) => (rowOfId.has(id) ? outline.title[rowOfId.get(id)!]! : 'at the top')),
  };
}

/** Dependencies that stand above the diagonal of an order: a thing before what it depends on. */
export function feedbackIn({ edges }: Structure, order: ArrayLike<number>): number {
  const place = new Int32Array(edges.nodes);
  for (let at = 0; at < order.length; at++) place[order[at]!] = at;
  let sum = 0;
  for (let edge = 0; edge < edges.from.length; edge++) if (place[edges.from[edge]!]! < place[edges.to[edge]!]!) sum += edges.weight[edge]!;
  return sum;
}

/** Things group by group; within a group in the order they were given. */
export function orderByGroups(group: ArrayLike<number>): number[] {
  const rank = (thing: number) => (group[thing]! < 0 ? Number.MAX_SAFE_INTEGER : group[thing]!);
  return Array.from({ length: group.length }, (_, thing) => thing).sort((a, b) => rank(a) - rank(b) || a - b);
}

/** Where each group stands in an order that keeps them together. */
export function blocksOf(order: readonly number[], group: ArrayLike<number>): { start: number; size: number }[] {
  const blocks: { start: number; size: number }[] = [];
  order.forEach((thing, at) => {
    if (at > 0 && group[order[at - 1]!] === group[thing]) blocks.at(-1)!.size++;
    else blocks.push({ start: at, size: 1 });
  });
  return blocks.filter(({ size }) => size > 1);
}
