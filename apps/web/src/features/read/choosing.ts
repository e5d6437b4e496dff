import type { OutlineReply } from '@coomb/contract';

/** Chosen ids after one row is chosen or let go. A section takes all below it along. */
export function toggleChosen(outline: OutlineReply, rows: readonly number[], chosen: ReadonlySet<string>, position: number): Set<string> {
  const next = new Set(chosen);
  const isChosen = chosen.has(outline.id[rows[position]!]!);
  for (const at of withBelow(outline, rows, position)) {
    if (isChosen) next.delete(outline.id[rows[at]!]!);
    else next.add(outline.id[rows[at]!]!);
  }
  return next;
}

/** Chosen ids with all rows between two positions, both included. */
export function chooseRange(outline: OutlineReply, rows: readonly number[], chosen: ReadonlySet<string>, from: number, to: number): Set<string> {
  const between = rows.slice(Math.min(from, to), Math.max(from, to) + 1);
  return new Set([...chosen, ...between.map((row) => outline.id[row]!)]);
}

/** Positions of a row and of all that stands below it. */
function withBelow(outline: OutlineReply, rows: readonly number[], position: number): number[] {
  const found = [position];
  const inside = new Set([rows[position]!]);
  for (let at = position + 1; at < rows.length && inside.has(outline.parent[rows[at]!]!); at++) {
    inside.add(rows[at]!);
    found.push(at);
  }
  return found;
}
