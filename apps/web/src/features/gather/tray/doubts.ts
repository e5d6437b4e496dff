import type { Draft, Issue } from '@coomb/core';

const WORST = { error: 0, warning: 1, note: 2 };
const CELL = /^(.*)!(?:row |[A-Z]+)(\d+)$/;

/** The worst remark about each draft, by its key: remarks name a paragraph, a row of a table, or a cell of a sheet. */
export function findDoubts(drafts: readonly Draft[], issues: readonly Issue[]): Map<number, Issue> {
  const byPlace = new Map<string, Issue>();
  for (const issue of issues) {
    const place = placeOf(issue.at);
    const known = byPlace.get(place);
    if (!known || WORST[issue.severity] < WORST[known.severity]) byPlace.set(place, issue);
  }
  const doubts = new Map<number, Issue>();
  for (const { key, place } of drafts) {
    const doubt = byPlace.get(place.says);
    if (doubt) doubts.set(key, doubt);
  }
  return doubts;
}

/** A cell stands in a row, which is what an item comes from. */
function placeOf(at: string): string {
  const cell = CELL.exec(at);
  return cell ? `${cell[1]}, row ${cell[2]}` : at;
}
