import type { MergeValue } from '@coomb/core';
import type { ItemValue } from '../ledger/change.js';

type Content = Pick<ItemValue, 'title' | 'html' | 'kind' | 'heading' | 'fields' | 'details'>;
const FIELD = 'field:';

/** An item's content as values to compare: `title`, `text`, `kind`, `heading`, `details` as lines where it has any, and `field:<id>` for each of its fields. */
export function valuesOf(content: Content): Record<string, MergeValue> {
  const fields = Object.entries(content.fields).map(([id, value]) => [FIELD + id, value] as const);
  const details = content.details.length > 0 && { details: content.details.map(({ sort, text }) => `${sort}: ${text}`) };
  return { title: content.title, text: content.html, kind: content.kind, heading: content.heading, ...details, ...Object.fromEntries(fields) };
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
