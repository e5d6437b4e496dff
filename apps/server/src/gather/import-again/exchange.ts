import type { DraftLink } from '@coomb/core';

/** A link as text: kind, direction, target. Targets are compared without regard to case. */
export function writeLink(link: Pick<DraftLink, 'linkKind' | 'reversed' | 'target'>): string {
  return `${link.linkKind} ${link.reversed ? 'in' : 'out'} ${link.target.toLowerCase()}`;
}

export function readLink(text: string): Pick<DraftLink, 'linkKind' | 'reversed' | 'target'> {
  const [linkKind, direction, ...target] = text.split(' ');
  return { linkKind: linkKind!, reversed: direction === 'in', target: target.join(' ') };
}

/** Links of each draft by its key, each once. */
export function linksByDraft(links: readonly DraftLink[]): Map<number, string[]> {
  const found = new Map<number, Set<string>>();
  for (const link of links) found.set(link.draft, (found.get(link.draft) ?? new Set()).add(writeLink(link)));
  return new Map([...found].map(([draft, texts]) => [draft, [...texts]]));
}
