import { type DraftLink, writeUseTarget } from '@coomb/core';

/** A link as text: kind, direction, target. Targets are compared without regard to case, and to the file that one lies in: it may be handed in with the others. */
export function writeLink(link: Pick<DraftLink, 'linkKind' | 'reversed' | 'target' | 'awaits' | 'ownUse' | 'otherUse'>): string {
  const target = link.awaits ? link.target.slice(link.target.lastIndexOf('#') + 1) : link.target;
  const said = writeUseTarget({ target, ownUse: link.ownUse ?? null, otherUse: link.otherUse ?? null });
  return `${link.linkKind} ${link.reversed ? 'in' : 'out'} ${said.toLowerCase()}`;
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
