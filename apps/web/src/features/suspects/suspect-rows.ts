import type { SuspectGroup, SuspectLink } from '@coomb/contract';

/** A row of the queue: the change that made links suspect, or one of those links. */
export type SuspectRow = { group: SuspectGroup; link?: SuspectLink };

/** Each change, and below it its links. */
export function buildSuspectRows(groups: readonly SuspectGroup[]): SuspectRow[] {
  return groups.flatMap((group) => [{ group }, ...group.links.map((link) => ({ group, link }))]);
}

/** What somebody else, or whoever looks, mended meanwhile is gone: the nearest link from a place on, else the last one. */
export function nearestLink(rows: readonly SuspectRow[], at: number): number {
  for (let row = Math.max(0, at); row < rows.length; row++) if (rows[row]!.link) return row;
  for (let row = Math.min(at, rows.length) - 1; row >= 0; row--) if (rows[row]!.link) return row;
  return 0;
}
