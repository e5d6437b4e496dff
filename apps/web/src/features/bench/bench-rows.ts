import type { LinkColumnsReply, OutlineReply } from '@coomb/contract';

/** One link between the two sides, by outline row. */
export interface Thread {
  id: string;
  left: number;
  right: number;
  kind: number;
  suspect: boolean;
  /** Whether the left item stands at the `from` end. */
  leftIsFrom: boolean;
  /** Ids on the path of the use of an end in which it holds only, and how that reads. */
  leftUse?: readonly string[];
  rightUse?: readonly string[];
  inUse?: string;
}

/** Links as threads from the left rows to the right ones. */
export function buildThreads(outline: OutlineReply, links: LinkColumnsReply, left: number, right: number): Thread[] {
  const rowOf = new Map(outline.node.map((node, row) => [node, row]));
  return links.id.flatMap((id, i): Thread[] => {
    const from = rowOf.get(links.from[i]!);
    const to = rowOf.get(links.to[i]!);
    if (from === undefined || to === undefined) return [];
    const leftIsFrom = outline.collection[from] === left && outline.collection[to] === right;
    if (!leftIsFrom && !(outline.collection[to] === left && outline.collection[from] === right)) return [];
    const [fromUse, toUse] = [links.fromUsage[i] ?? -1, links.toUsage[i] ?? -1];
    const [leftUse, rightUse] = (leftIsFrom ? [fromUse, toUse] : [toUse, fromUse]).map((one) => links.usagePaths[one]);
    const inUse = [fromUse, toUse].flatMap((one) => links.usages[one] ?? []).join(' and ');
    return [
      {
        ...{ id, left: leftIsFrom ? from : to, right: leftIsFrom ? to : from, kind: links.kind[i]!, suspect: links.suspect[i] === 1, leftIsFrom },
        ...(leftUse && { leftUse }),
        ...(rightUse && { rightUse }),
        ...(inUse && { inUse }),
      },
    ];
  });
}

/** Rows of the left side: all, or those without a thread, with the headings above them. */
export function narrowRows(outline: OutlineReply, rows: readonly number[], keep: (row: number) => boolean): number[] {
  const wanted = new Set<number>();
  for (const row of rows) {
    if (outline.heading[row] || !keep(row)) continue;
    for (let at = row; at >= 0 && !wanted.has(at); at = outline.parent[at]!) wanted.add(at);
  }
  return rows.filter((row) => wanted.has(row));
}

export function depthIn(outline: OutlineReply, row: number): number {
  let depth = 0;
  for (let up = outline.parent[row]!; up >= 0; up = outline.parent[up]!) depth++;
  return depth;
}
