/** An order of both sides in which what they are joined by gathers along the diagonal. */
export interface Gathered {
  /** Items of each side in their new order. */
  rows: Int32Array;
  columns: Int32Array;
  /** Mean distance of the links from the diagonal, as a share of the side: of the order that was given, and of this one. */
  before: number;
  after: number;
}

/** Rounds at most; the order is looked at after some of them, and none follow once it got no better for several looks. */
const ROUNDS = 60;
const LOOK = 3;
const PATIENCE = 5;

/**
 * Orders rows and columns so that links gather along the diagonal. Parts that nothing joins stand one after the other; within each, items take the mean of the
 * places of those they are linked with, again and again (reciprocal averaging), without the part that all have in common. What has no link stands last,
 * in its order. The best order met is given, never a worse one than it was: the same for the same links.
 */
export function gatherAlongDiagonal(rows: number, columns: number, row: Int32Array, column: Int32Array): Gathered {
  const spreadOf = (a: Int32Array, b: Int32Array) => {
    const [placeA, placeB] = [placesOf(a), placesOf(b)];
    let sum = 0;
    for (let i = 0; i < row.length; i++) sum += Math.abs((placeA[row[i]!]! + 0.5) / rows - (placeB[column[i]!]! + 0.5) / columns);
    return row.length ? sum / row.length : 0;
  };
  const given = { rows: Int32Array.from({ length: rows }, (_, i) => i), columns: Int32Array.from({ length: columns }, (_, i) => i) };
  const before = spreadOf(given.rows, given.columns);
  let best: Gathered = { ...given, before, after: before };
  const linkedRow = countEnds(row, rows);
  const linkedColumn = countEnds(column, columns);
  const part = findParts(rows, columns, row, column);
  const tryOrder = (score: Float64Array, columnScore: Float64Array) => {
    const order = (scores: Float64Array, linked: Int32Array, offset: number) =>
      Int32Array.from(given[offset ? 'columns' : 'rows']).sort(
        (a, b) =>
          Number(linked[a] === 0) - Number(linked[b] === 0) ||
          (linked[a] === 0 ? a - b : part[offset + a]! - part[offset + b]! || scores[a]! - scores[b]! || a - b),
      );
    const [one, other] = [order(score, linkedRow, 0), order(columnScore, linkedColumn, rows)];
    const after = spreadOf(one, other);
    if (after >= best.after) return false;
    best = { rows: one, columns: other, before, after };
    return true;
  };
  const score = Float64Array.from(given.rows);
  for (let round = 0, idle = 0; round < ROUNDS && idle < PATIENCE; round++) {
    const columnScore = meanOf(score, row, column, linkedColumn);
    if (round % LOOK === 0) idle = tryOrder(score, columnScore) ? 0 : idle + 1;
    const next = meanOf(columnScore, column, row, linkedRow);
    centre(next, linkedRow, part);
    score.set(next);
  }
  return best;
}

const placesOf = (order: Int32Array) => {
  const place = new Int32Array(order.length);
  order.forEach((item, at) => {
    place[item] = at;
  });
  return place;
};

function countEnds(ends: Int32Array, count: number): Int32Array {
  const counts = new Int32Array(count);
  for (const end of ends) counts[end]!++;
  return counts;
}

function meanOf(score: Float64Array, from: Int32Array, to: Int32Array, linked: Int32Array): Float64Array {
  const mean = new Float64Array(linked.length);
  for (let i = 0; i < from.length; i++) mean[to[i]!]! += score[from[i]!]!;
  for (let i = 0; i < mean.length; i++) if (linked[i]) mean[i]! /= linked[i]!;
  return mean;
}

/** Takes the mean of each part away and brings its spread back to one, or all would come to stand at one place. */
function centre(score: Float64Array, linked: Int32Array, part: Int32Array): void {
  const [sum, weight, square] = [new Float64Array(part.length), new Float64Array(part.length), new Float64Array(part.length)];
  for (let i = 0; i < score.length; i++) {
    sum[part[i]!]! += score[i]! * linked[i]!;
    weight[part[i]!]! += linked[i]!;
  }
  for (let i = 0; i < score.length; i++) {
    score[i]! -= sum[part[i]!]! / (weight[part[i]!]! || 1);
    square[part[i]!]! += score[i]! ** 2 * linked[i]!;
  }
  for (let i = 0; i < score.length; i++) score[i]! /= Math.sqrt(square[part[i]!]! / (weight[part[i]!]! || 1)) || 1;
}

/** The part of each row, then of each column: numbered by the first row in it. */
function findParts(rows: number, columns: number, row: Int32Array, column: Int32Array): Int32Array {
  const root = Int32Array.from({ length: rows + columns }, (_, i) => i);
  const find = (at: number): number => {
    let top = at;
    while (root[top] !== top) top = root[top]!;
    for (let up = at; root[up] !== top; ) [up, root[up]] = [root[up]!, top];
    return top;
  };
  for (let i = 0; i < row.length; i++) {
    const [a, b] = [find(row[i]!), find(rows + column[i]!)];
    if (a !== b) root[Math.max(a, b)] = Math.min(a, b);
  }
  return root.map((_, at) => find(at));
}
