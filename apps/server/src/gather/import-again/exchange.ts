import type { DraftLink, MergeValue } from '@coomb/core';
import type { ItemRow } from '../../ledger/change.js';

type Content = Pick<ItemRow, 'title' | 'html' | 'kind' | 'heading' | 'fields'>;
const FIELD = 'field:';

/** An item's content as values to compare: `title`, `text`, `kind`, `heading`, and `field:<id>` for each of its fields. */
export function valuesOf(content: Content): Record<string, MergeValue> {
  const fields = Object.entries(content.fields).map(([id, value]) => [FIELD + id, value] as const);
  return { title: content.title, text: content.html, kind: content.kind, heading: content.heading, ...Object.fromEntries(fields) };
}

/** The content with some of its values replaced. */
export function withValues<C extends Content>(content: C, values: Record<string, MergeValue>): C {
  const fields = { ...content.fields };
  for (const [name, value] of Object.entries(values)) if (name.startsWith(FIELD)) fields[name.slice(FIELD.length)] = value;
  return {
    ...content,
    title: String(values.title ?? content.title),
    html: typeof values.text === 'string' ? values.text : content.html,
    kind: typeof values.kind === 'string' ? values.kind : content.kind,
    heading: typeof values.heading === 'boolean' ? values.heading : content.heading,
    fields,
  };
}

/** Id of the field that a value belongs to, if it is one. */
export function fieldOf(name: string): string | undefined {
  return name.startsWith(FIELD) ? name.slice(FIELD.length) : undefined;
}

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
