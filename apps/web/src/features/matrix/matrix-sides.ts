import type { MatrixScope, OutlineReply, ReplyOf, readMatrix } from '@coomb/contract';
import { addToGroup, gatherAlongDiagonal, isUseWithin, MatrixCells, narrowAxis, type PackedEntries } from '@coomb/core';
import type { UseLine } from '../linking/use-lines';
import type { MatrixAddress } from './address';

export type Groups = ReplyOf<typeof readMatrix>['rowGroups'];
export type Uses = ReadonlyMap<number, readonly UseLine[]>;

/** One side of the matrix: lines in their order, each with the line of its parent. A line is an item, one use of the item above it, or a group. */
export interface MatrixSide {
  /** Outline row of each line; -1 for a group. */
  rows: Int32Array;
  parent: Int32Array;
  /** Entries at each line, before any narrowing; of a use those that hold there. */
  linked: Int32Array;
  /** Lines that are a use of the item above them. */
  uses: ReadonlyMap<number, UseLine>;
  /** First line of the uses of an outline row. */
  firstUse: ReadonlyMap<number, number>;
  /** Lines that are a group, with what it is called. */
  groups: ReadonlyMap<number, string>;
  /** Line of each outline row; -1 where it has none. */
  lineOf: Int32Array;
}

export interface MatrixSides {
  row: MatrixSide;
  column: MatrixSide;
  /** Each entry once: at the first use that it holds in, or at the item. */
  cells: MatrixCells;
  shown: number;
  /** Entries that have an end outside of what is seen. */
  outside: number;
  /** How far entries stand from the diagonal, before and after they were gathered there. */
  gathered?: { before: number; after: number };
  /** Entries between the items of two lines, whatever uses they hold in. */
  entriesAt: (row: number, column: number) => number[];
  /** Ids on the path of the use in which an entry holds only. */
  rowUse: (entry: number) => readonly string[] | undefined;
  columnUse: (entry: number) => readonly string[] | undefined;
}

const NO_USES: Uses = new Map();

interface Asked {
  rows: MatrixScope;
  columns: MatrixScope;
  entries: PackedEntries;
  usagePaths: readonly (readonly string[])[];
  show: MatrixAddress['show'];
  order?: MatrixAddress['order'];
  rowGroups?: Groups;
  columnGroups?: Groups;
  uses?: Uses;
  /** A mark that stands for what is linked no more. */
  gone?: number;
}

/** Lines of both sides, and what stands between them. */
export function buildMatrixSides(outline: OutlineReply, asked: Asked): MatrixSides {
  const { entries, usagePaths, show, order = 'outline', uses = NO_USES } = asked;
  const rowOf = rowsOfNodes(outline);
  const [inRows, inColumns] = [itemsOf(outline, asked.rows), itemsOf(outline, asked.columns)];
  const [isRow, isColumn] = [maskOf(outline, inRows), maskOf(outline, inColumns)];
  const count = entries.row.length;
  const [rowEnd, columnEnd] = [new Int32Array(count), new Int32Array(count)];
  const [atRow, atColumn] = [new Int32Array(outline.id.length), new Int32Array(outline.id.length)];
  let kept = 0;
  const ofKept = new Int32Array(count);
  for (let i = 0; i < count; i++) {
    const [a, b] = [rowOf[entries.row[i]!] ?? -1, rowOf[entries.column[i]!] ?? -1];
    if (a < 0 || b < 0 || !isRow[a] || !isColumn[b]) continue;
    rowEnd[kept] = a;
    columnEnd[kept] = b;
    if (entries.mark[i] !== asked.gone) {
      atRow[a]!++;
      atColumn[b]!++;
    }
    ofKept[kept++] = i;
  }
  const pathAt = (places: Int32Array, entry: number) => usagePaths[places[ofKept[entry]!]!];
  const flat = order !== 'outline';
  const sideOf = (items: Int32Array, linked: Int32Array, ends: Int32Array, places: Int32Array, groups: Groups | undefined, isGaps: boolean) => {
    const byRow = new Map<number, (readonly string[] | undefined)[]>();
    if (!flat && uses.size > 0) for (let i = 0; i < kept; i++) if (uses.has(ends[i]!)) addToGroup(byRow, ends[i]!, pathAt(places, i));
    const countIn = (row: number, { path }: UseLine) => (byRow.get(row) ?? []).filter((use) => !use || isUseWithin(path, use)).length;
    const isGap = (row: number) => linked[row] === 0 || uses.get(row)?.some((use) => countIn(row, use) === 0) === true;
    const keep = isGaps ? (row: number) => !outline.heading[row] && isGap(row) : show === 'linked' ? (row: number) => linked[row]! > 0 : undefined;
    return buildSide(outline, { items, linked, keep, groups: flat ? undefined : (groups ?? undefined), flat, uses: flat ? NO_USES : uses, countIn, rowOf });
  };
  let row = sideOf(inRows, atRow, rowEnd, entries.rowUse, asked.rowGroups, show === 'rowGaps');
  let column = sideOf(inColumns, atColumn, columnEnd, entries.columnUse, asked.columnGroups, show === 'columnGaps');
  let gathered: MatrixSides['gathered'];
  if (order === 'number') [row, column] = [byNumber(row), byNumber(column)];
  if (order === 'diagonal') {
    const pairs = Array.from({ length: kept }, (_, i) => [row.lineOf[rowEnd[i]!]!, column.lineOf[columnEnd[i]!]!] as const).filter(
      ([a, b]) => a >= 0 && b >= 0,
    );
    const found = gatherAlongDiagonal(
      row.rows.length,
      column.rows.length,
      Int32Array.from(pairs, ([a]) => a),
      Int32Array.from(pairs, ([, b]) => b),
    );
    gathered = { before: found.before, after: found.after };
    [row, column] = [reorder(row, found.rows), reorder(column, found.columns)];
  }
  const lines = {
    row: new Int32Array(kept),
    column: new Int32Array(kept),
    mark: new Uint8Array(kept),
    suspect: new Uint8Array(kept),
    of: new Int32Array(kept),
  };
  let shown = 0;
  for (let i = 0; i < kept; i++) {
    const one = lineAt(row, rowEnd[i]!, row.uses.size > 0 ? pathAt(entries.rowUse, i) : undefined);
    const other = lineAt(column, columnEnd[i]!, column.uses.size > 0 ? pathAt(entries.columnUse, i) : undefined);
    if (one < 0 || other < 0) continue;
    lines.row[shown] = one;
    lines.column[shown] = other;
    lines.mark[shown] = entries.mark[ofKept[i]!]!;
    lines.suspect[shown] = entries.suspect[ofKept[i]!]!;
    lines.of[shown++] = ofKept[i]!;
  }
  const cells = MatrixCells.build(row.rows.length, column.rows.length, {
    ...{ row: lines.row.subarray(0, shown), column: lines.column.subarray(0, shown) },
    ...{ mark: lines.mark.subarray(0, shown), suspect: lines.suspect.subarray(0, shown) },
  });
  return {
    ...{ row, column, cells, shown, outside: count - kept },
    ...(gathered && { gathered }),
    entriesAt: (rowLine, columnLine) => {
      const [a, b] = [rangeOf(row, rowLine), rangeOf(column, columnLine)];
      return Array.from(cells.entriesOf(a[0], a[1])).filter((entry) => lines.column[entry]! >= b[0] && lines.column[entry]! < b[1]);
    },
    rowUse: (entry) => usagePaths[entries.rowUse[lines.of[entry]!]!],
    columnUse: (entry) => usagePaths[entries.columnUse[lines.of[entry]!]!],
  };
}

/** What an entry is in a line of a side: it holds there, it holds there because it holds everywhere, or it holds in other uses only. */
export function holdsAt(side: MatrixSide, line: number, use: readonly string[] | undefined): 'here' | 'everywhere' | 'elsewhere' {
  const own = side.uses.get(line);
  if (!own) return use && side.firstUse.has(side.rows[line]!) ? 'elsewhere' : 'here';
  if (!use) return 'everywhere';
  return isUseWithin(own.path, use) ? 'here' : 'elsewhere';
}

export const isItemLine = (outline: OutlineReply, side: MatrixSide, line: number): boolean => side.rows[line]! >= 0 && outline.heading[side.rows[line]!] !== 1;

function rowsOfNodes(outline: OutlineReply): Int32Array {
  const most = outline.node.reduce((highest, node) => Math.max(highest, node), -1);
  const rowOf = new Int32Array(most + 1).fill(-1);
  outline.node.forEach((node, row) => {
    rowOf[node] = row;
  });
  return rowOf;
}

/** Outline rows of a scope, in reading order; headings above what it holds are among them. */
function itemsOf(outline: OutlineReply, { collections, kinds, below }: MatrixScope): Int32Array {
  const ofCollection = new Set(collections.map((id) => outline.collections.indexOf(id)));
  const ofKind = new Set(kinds.map((id) => outline.kinds.indexOf(id)));
  const top = new Set(below);
  const isBelow = new Uint8Array(outline.id.length);
  const found: number[] = [];
  outline.id.forEach((id, row) => {
    const parent = outline.parent[row]!;
    if (top.has(id) || (parent >= 0 && isBelow[parent])) isBelow[row] = 1;
    if (collections.length > 0 && !ofCollection.has(outline.collection[row]!)) return;
    if (top.size > 0 && !isBelow[row]) return;
    found.push(row);
  });
  if (kinds.length === 0) return Int32Array.from(found);
  const indexOf = new Map(found.map((row, at) => [row, at]));
  const parent = Int32Array.from(found, (row) => indexOf.get(outline.parent[row]!) ?? -1);
  return narrowAxis({ parent }, (at) => ofKind.has(outline.kind[found[at]!]!)).map((at) => found[at]!);
}

const maskOf = (outline: OutlineReply, rows: Int32Array): Uint8Array => {
  const mask = new Uint8Array(outline.id.length);
  for (const row of rows) mask[row] = 1;
  return mask;
};

interface SideAsked {
  items: Int32Array;
  /** Entries at each outline row. */
  linked: Int32Array;
  keep: ((row: number) => boolean) | undefined;
  groups: Groups | undefined;
  flat: boolean;
  uses: Uses;
  countIn: (row: number, use: UseLine) => number;
  rowOf: Int32Array;
}

function buildSide(outline: OutlineReply, { items, linked, keep, groups, flat, uses, countIn, rowOf }: SideAsked): MatrixSide {
  const lines: { row: number; parent: number; linked: number }[] = [];
  const useLines = new Map<number, UseLine>();
  const firstUse = new Map<number, number>();
  const groupLines = new Map<number, string>();
  const lineOf = new Int32Array(outline.id.length).fill(-1);
  const add = (row: number, parent: number) => {
    lineOf[row] = lines.push({ row, parent, linked: linked[row]! }) - 1;
    const own = uses.get(row) ?? [];
    if (own.length > 0) firstUse.set(row, lines.length);
    for (const use of own) {
      useLines.set(lines.length, use);
      lines.push({ row, parent: lineOf[row]!, linked: countIn(row, use) });
    }
  };
  if (groups) {
    const isThere = maskOf(outline, items);
    for (const { label, nodes } of groups) {
      const members = nodes.map((node) => rowOf[node] ?? -1).filter((row) => row >= 0 && isThere[row] && (!keep || keep(row)));
      if (members.length === 0) continue;
      groupLines.set(lines.length, label || 'nothing said');
      const head = lines.push({ row: -1, parent: -1, linked: 0 }) - 1;
      for (const row of members) add(row, head);
    }
  } else if (flat) {
    for (const row of items) if (!outline.heading[row] && (!keep || keep(row))) add(row, -1);
  } else {
    const indexOf = new Map(Array.from(items, (row, at) => [row, at]));
    const parent = items.map((row) => indexOf.get(outline.parent[row]!) ?? -1);
    const kept = keep ? narrowAxis({ parent }, (at) => keep(items[at]!)).map((at) => items[at]!) : items;
    for (const row of kept) add(row, outline.parent[row]! >= 0 ? lineOf[outline.parent[row]!]! : -1);
  }
  return {
    rows: Int32Array.from(lines, ({ row }) => row),
    parent: Int32Array.from(lines, (line) => line.parent),
    linked: Int32Array.from(lines, (line) => line.linked),
    ...{ uses: useLines, firstUse, groups: groupLines, lineOf },
  };
}

/** Lines of the item that a line stands for, with its uses: from, and up to. */
function rangeOf(side: MatrixSide, line: number): [number, number] {
  const row = side.rows[line]!;
  if (row < 0) return [line, line + 1];
  const first = side.lineOf[row]!;
  let end = first + 1;
  while (side.uses.has(end) && side.rows[end] === row) end++;
  return [first, end];
}

function lineAt(side: MatrixSide, row: number, use: readonly string[] | undefined): number {
  const first = use && side.firstUse.get(row);
  if (first !== undefined)
    for (let line = first; side.rows[line] === row && side.uses.has(line); line++) if (isUseWithin(side.uses.get(line)!.path, use!)) return line;
  return side.lineOf[row]!;
}

/** The same lines in another order, without any above them. */
function reorder(side: MatrixSide, order: Int32Array): MatrixSide {
  const rows = order.map((line) => side.rows[line]!);
  const lineOf = side.lineOf.slice().fill(-1);
  rows.forEach((row, line) => {
    lineOf[row] = line;
  });
  return { ...side, rows, parent: new Int32Array(rows.length).fill(-1), linked: order.map((line) => side.linked[line]!), lineOf };
}

const byNumber = (side: MatrixSide): MatrixSide =>
  reorder(
    side,
    Int32Array.from(side.rows.keys()).sort((a, b) => side.linked[b]! - side.linked[a]! || a - b),
  );
