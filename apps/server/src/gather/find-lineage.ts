import type { Binding, Draft } from '@coomb/core';

interface KnownItem {
  bindings: readonly Binding[];
  title: string;
  heading: boolean;
  withdrawn: boolean;
}

const FEWEST = 3;
/** Shorter titles, such as "General", are everywhere. */
const FEWEST_WORDS = 3;

/** The source that a file is a newer version of, by what it holds: at least half of its items are known from there, by identifier or by title. Null where none is. */
export function findLineage(items: readonly KnownItem[], drafts: readonly Draft[]): string | null {
  const own = drafts.filter((draft) => draft.role === 'item');
  const ids = new Set(own.flatMap(({ externalId }) => externalId?.toLowerCase() ?? []));
  const titles = new Set(own.flatMap(({ externalId, title }) => (externalId === null && tells(title) ? title.toLowerCase() : [])));
  const counts = new Map<string, number>();
  for (const { bindings, title, heading, withdrawn } of items) {
    if (heading || withdrawn) continue;
    for (const { partner, externalId } of bindings) {
      const isKnown = externalId === null ? titles.has(title.toLowerCase()) : ids.has(externalId.toLowerCase());
      if (isKnown) counts.set(partner, (counts.get(partner) ?? 0) + 1);
    }
  }
  const [best] = [...counts].sort((a, b) => b[1] - a[1]);
  return best && best[1] >= FEWEST && best[1] * 2 >= own.length ? best[0] : null;
}

function tells(title: string): boolean {
  return title.trim().split(/\s+/).length >= FEWEST_WORDS;
}
