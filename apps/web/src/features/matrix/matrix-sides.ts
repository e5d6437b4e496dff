import type { LinkColumnsReply, OutlineReply } from '@coomb/contract';
import { addToGroup, narrowAxis } from '@coomb/core';

/** One side of the matrix: outline rows in order, each with the index of its parent on this side. */
export interface MatrixSide {
  rows: Int32Array;
  parent: Int32Array;
  /** Links at each item of the side, before any narrowing. */
  linked: Int32Array;
}

export interface MatrixSides {
  row: MatrixSide;
  column: MatrixSide;
  links: { row: Int32Array; column: Int32Array };
  /** Links by the pair of outline rows, for editing a cell. */
  byPair: Map<string, { id: string; kind: number; suspect: boolean }[]>;
  shown: number;
}

/** Puts links onto the two sides; `show` narrows a side to its gaps with their headings. */
export function buildMatrixSides(
  outline: OutlineReply,
  links: LinkColumnsReply,
  rowCollection: number,
  columnCollection: number,
  kind: number,
  show: 'all' | 'rowGaps' | 'columnGaps',
): MatrixSides {
  const rowOf = new Map(outline.node.map((node, row) => [node, row]));
  const pairs: [number, number][] = [];
  const byPair: MatrixSides['byPair'] = new Map();
  links.id.forEach((id, i) => {
    if (kind >= 0 && links.kind[i] !== kind) return;
    const a = rowOf.get(links.from[i]!);
    const b = rowOf.get(links.to[i]!);
    if (a === undefined || b === undefined) return;
    const straight = outline.collection[a] === rowCollection && outline.collection[b] === columnCollection;
    if (!straight && !(outline.collection[b] === rowCollection && outline.collection[a] === columnCollection)) return;
    const [row, column] = straight ? [a, b] : [b, a];
    pairs.push([row, column]);
    const key = `${row} ${column}`;
    addToGroup(byPair, key, { id, kind: links.kind[i]!, suspect: links.suspect[i] === 1 });
  });
  const row = buildSide(
    outline,
    rowCollection,
    pairs.map((pair) => pair[0]),
    show === 'rowGaps',
  );
  const column = buildSide(
    outline,
    columnCollection,
    pairs.map((pair) => pair[1]),
    show === 'columnGaps',
  );
  const rowIndex = new Map([...row.rows].map((one, index) => [one, index]));
  const columnIndex = new Map([...column.rows].map((one, index) => [one, index]));
  const kept = pairs.filter(([a, b]) => rowIndex.has(a) && columnIndex.has(b));
  return {
    row,
    column,
    links: { row: Int32Array.from(kept, ([a]) => rowIndex.get(a)!), column: Int32Array.from(kept, ([, b]) => columnIndex.get(b)!) },
    byPair,
    shown: kept.length,
  };
}

function buildSide(outline: OutlineReply, collection: number, ends: number[], gapsOnly: boolean): MatrixSide {
  const rows: number[] = [];
  outline.collection.forEach((one, row) => {
    if (one === collection) rows.push(row);
  });
  const full = indexParents(outline, rows);
  const counts = new Map<number, number>();
  for (const end of ends) counts.set(end, (counts.get(end) ?? 0) + 1);
  const kept = gapsOnly
    ? Array.from(
        narrowAxis({ parent: full }, (index) => !outline.heading[rows[index]!] && !counts.has(rows[index]!)),
        (index) => rows[index]!,
      )
    : rows;
  return { rows: Int32Array.from(kept), parent: indexParents(outline, kept), linked: Int32Array.from(kept, (row) => counts.get(row) ?? 0) };
}

function indexParents(outline: OutlineReply, rows: readonly number[]): Int32Array {
  const indexOf = new Map(rows.map((row, index) => [row, index]));
  return Int32Array.from(rows, (row) => indexOf.get(outline.parent[row]!) ?? -1);
}
