import type { AffectedItem, readImpact, ReplyOf } from '@coomb/contract';
import { verificationStates } from '@coomb/core';

type Impact = ReplyOf<typeof readImpact>;

/** What is shown of an item in one line, and where: below the words that head its part of the list, and how deep in a tree. */
export type ImpactRow =
  | { head: string; count: number; explains?: string }
  | { affected: AffectedItem; depth: number; side: 'downstream' | 'upstream' }
  | { stale: Impact['stale'][number] };

/** Nearest first, or each below the one that leads to it by a shortest way. */
export function buildImpactRows(impact: Impact, shape: 'list' | 'tree'): ImpactRow[] {
  const rows: ImpactRow[] = [];
  if (impact.stale.length > 0)
    rows.push(
      { head: 'Evidence that would turn stale', count: impact.stale.length, explains: 'Tests have to be run again' },
      ...impact.stale.map((stale) => ({ stale })),
    );
  for (const side of ['downstream', 'upstream'] as const) {
    const { total, items } = impact[side];
    const words = side === 'downstream' ? 'Downstream: what rests on it' : 'Upstream: what it rests on';
    rows.push({ head: words, count: total, ...(total > items.length && { explains: `the nearest ${items.length} are listed` }) });
    if (shape === 'tree') rows.push(...buildTree(items).map(({ affected, depth }) => ({ affected, depth, side })));
    else rows.push(...items.map((affected) => ({ affected, depth: 0, side })));
  }
  return rows;
}

/** Each item below the last but one of its way. What is nearest comes first, so everybody's parent is known when it is met. */
function buildTree(items: readonly AffectedItem[]): { affected: AffectedItem; depth: number }[] {
  const below = new Map<string, AffectedItem[]>();
  const known = new Set(items.map(({ item }) => item.reference));
  const tops: AffectedItem[] = [];
  for (const one of items) {
    const before = one.way.at(-2)?.reference;
    if (before === undefined || !known.has(before)) tops.push(one);
    else below.set(before, [...(below.get(before) ?? []), one]);
  }
  const found: { affected: AffectedItem; depth: number }[] = [];
  const open = tops.toReversed().map((affected) => ({ affected, depth: 0 }));
  for (let next = open.pop(); next; next = open.pop()) {
    found.push(next);
    const { depth } = next;
    for (const affected of (below.get(next.affected.item.reference) ?? []).toReversed()) open.push({ affected, depth: depth + 1 });
  }
  return found;
}

/** "SYS-001 → is satisfied by MOD-126 → is verified by TC-001". */
export function sayWay({ from, way }: AffectedItem): string {
  return [from, ...way.map(({ phrase, reference, usage }) => `${phrase} ${reference}${usage ? ` (only as in ${usage})` : ''}`)].join(' → ');
}

/** Rows of the outline that an impact lights: what would change, how far what it touches is from there, and states by their place that others would be. */
export function litRows(impact: Impact, rowOf: ReadonlyMap<string, number>) {
  const rowsOf = <Value>(list: readonly { id: string; value: Value }[]) =>
    new Map(list.flatMap(({ id, value }) => (rowOf.has(id) ? [[rowOf.get(id)!, value] as const] : [])));
  const becomes = rowsOf(impact.stale.map(({ item, becomes: state }) => ({ id: item.id, value: verificationStates.indexOf(state) })));
  const affected = [...impact.upstream.items, ...impact.downstream.items].map(({ item, distance }) => ({ id: item.id, value: distance }));
  return {
    roots: new Set(impact.roots.flatMap(({ id }) => rowOf.get(id) ?? [])),
    // What turns stale is lit, too, where no link leads to it.
    traced: new Map([...[...becomes.keys()].map((row) => [row, 0] as const), ...rowsOf(affected)]),
    becomes,
  };
}
