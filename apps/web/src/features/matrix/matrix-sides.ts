import type { LinkColumnsReply, OutlineReply } from '@coomb/contract';
import { addToGroup, isUseWithin, narrowAxis } from '@coomb/core';
import type { UseLine } from '../linking/use-lines';

/** One side of the matrix: outline rows in order, each with the index of its parent on this side. */
export interface MatrixSide {
  rows: Int32Array;
  parent: Int32Array;
  /** Links at each line of the side, before any narrowing; of a use those that hold there. */
  linked: Int32Array;
  /** Lines that are a use of the item above them. */
  uses: ReadonlyMap<number, UseLine>;
  /** First line of the uses of an outline row. */
  firstUse: ReadonlyMap<number, number>;
}

export interface MatrixLink {
  id: string;
  kind: number;
  suspect: boolean;
  /** Ids on the path of the use in which it holds only, at either side. */
  rowUse?: readonly string[];
  columnUse?: readonly string[];
}

export interface MatrixSides {
  row: MatrixSide;
  column: MatrixSide;
  /** Each link once: at the first use that it holds in, or at the item. */
  links: { row: Int32Array; column: Int32Array };
  /** Links by the pair of outline rows, for editing a cell. */
  byPair: Map<string, MatrixLink[]>;
  shown: number;
}

export type Uses = ReadonlyMap<number, readonly UseLine[]>;

const NO_USES: Uses = new Map();

/** Puts links onto the two sides; `show` narrows a side to its gaps with their headings, `uses` gives items a line for each use. */
export function buildMatrixSides(
  outline: OutlineReply,
  links: LinkColumnsReply,
  rowCollection: number,
  columnCollection: number,
  kind: number,
  show: 'all' | 'rowGaps' | 'columnGaps',
  uses: Uses = NO_USES,
): MatrixSides {
  const rowOf = new Map(outline.node.map((node, row) => [node, row]));
  const pairs: { row: number; column: number; link: MatrixLink }[] = [];
  const byPair: MatrixSides['byPair'] = new Map();
  const pathAt = (ends: readonly number[], link: number) => links.usagePaths[ends[link] ?? -1];
  links.id.forEach((id, i) => {
    if (kind >= 0 && links.kind[i] !== kind) return;
    const a = rowOf.get(links.from[i]!);
    const b = rowOf.get(links.to[i]!);
    if (a === undefined || b === undefined) return;
    const straight = outline.collection[a] === rowCollection && outline.collection[b] === columnCollection;
    if (!straight && !(outline.collection[b] === rowCollection && outline.collection[a] === columnCollection)) return;
    const [row, column] = straight ? [a, b] : [b, a];
    const [rowUse, columnUse] = straight ? [pathAt(links.fromUsage, i), pathAt(links.toUsage, i)] : [pathAt(links.toUsage, i), pathAt(links.fromUsage, i)];
    const link = { id, kind: links.kind[i]!, suspect: links.suspect[i] === 1, ...(rowUse && { rowUse }), ...(columnUse && { columnUse }) };
    pairs.push({ row, column, link });
    addToGroup(byPair, `${row} ${column}`, link);
  });
  const row = buildSide(
    outline,
    rowCollection,
    pairs.map((pair) => ({ row: pair.row, use: pair.link.rowUse })),
    show === 'rowGaps',
    uses,
  );
  const column = buildSide(
    outline,
    columnCollection,
    pairs.map((pair) => ({ row: pair.column, use: pair.link.columnUse })),
    show === 'columnGaps',
    uses,
  );
  const lineOf = (side: MatrixSide) => {
    const index = new Map<number, number>();
    side.rows.forEach((one, line) => {
      if (!index.has(one)) index.set(one, line);
    });
    return (one: number, use: readonly string[] | undefined): number | undefined => (use && firstUseWithin(side, one, use)) ?? index.get(one);
  };
  const [rowLine, columnLine] = [lineOf(row), lineOf(column)];
  const kept = pairs.flatMap(({ row: a, column: b, link }) => {
    const [one, other] = [rowLine(a, link.rowUse), columnLine(b, link.columnUse)];
    return one === undefined || other === undefined ? [] : [[one, other] as const];
  });
  return {
    row,
    column,
    links: { row: Int32Array.from(kept, ([a]) => a), column: Int32Array.from(kept, ([, b]) => b) },
    byPair,
    shown: kept.length,
  };
}

/** What a link is in a line of a side: it holds there, it holds there because it holds everywhere, or it holds in other uses only. */
export function holdsAt(side: MatrixSide, line: number, use: readonly string[] | undefined): 'here' | 'everywhere' | 'elsewhere' {
  const own = side.uses.get(line);
  if (!own) return use && side.firstUse.has(side.rows[line]!) ? 'elsewhere' : 'here';
  if (!use) return 'everywhere';
  return isUseWithin(own.path, use) ? 'here' : 'elsewhere';
}

function firstUseWithin(side: MatrixSide, row: number, use: readonly string[]): number | undefined {
  const first = side.firstUse.get(row);
  if (first === undefined) return undefined;
  for (let line = first; side.rows[line] === row && side.uses.has(line); line++) if (isUseWithin(side.uses.get(line)!.path, use)) return line;
  return undefined;
}

interface SideEnd {
  row: number;
  use: readonly string[] | undefined;
}

function buildSide(outline: OutlineReply, collection: number, ends: readonly SideEnd[], gapsOnly: boolean, useLines: Uses): MatrixSide {
  const items: number[] = [];
  outline.collection.forEach((one, row) => {
    if (one === collection) items.push(row);
  });
  const byRow = new Map<number, SideEnd[]>();
  for (const end of ends) addToGroup(byRow, end.row, end);
  const isGap = (row: number) => !outline.heading[row] && (!byRow.has(row) || useLines.get(row)?.some((use) => countHere(byRow.get(row)!, use) === 0) === true);
  const full = indexParents(outline, items);
  const kept = gapsOnly
    ? Array.from(
        narrowAxis({ parent: full }, (index) => isGap(items[index]!)),
        (index) => items[index]!,
      )
    : items;
  const rows: number[] = [];
  const linked: number[] = [];
  const uses = new Map<number, UseLine>();
  const firstUse = new Map<number, number>();
  for (const row of kept) {
    rows.push(row);
    linked.push(byRow.get(row)?.length ?? 0);
    const own = useLines.get(row) ?? [];
    if (own.length > 0) firstUse.set(row, rows.length);
    for (const use of own) {
      uses.set(rows.length, use);
      rows.push(row);
      linked.push(countHere(byRow.get(row) ?? [], use));
    }
  }
  const lineOf = new Map<number, number>();
  rows.forEach((row, line) => {
    if (!uses.has(line)) lineOf.set(row, line);
  });
  const parent = Int32Array.from(rows, (row, line) => (uses.has(line) ? lineOf.get(row)! : (lineOf.get(outline.parent[row]!) ?? -1)));
  return { rows: Int32Array.from(rows), parent, linked: Int32Array.from(linked), uses, firstUse };
}

const countHere = (ends: readonly SideEnd[], { path }: UseLine) => ends.filter(({ use }) => !use || isUseWithin(path, use)).length;

function indexParents(outline: OutlineReply, rows: readonly number[]): Int32Array {
  const indexOf = new Map(rows.map((row, index) => [row, index]));
  return Int32Array.from(rows, (row) => indexOf.get(outline.parent[row]!) ?? -1);
}
