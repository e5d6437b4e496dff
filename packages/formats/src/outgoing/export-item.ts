import type { FieldValue } from '@coomb/core';

/** An item as it goes out, with its links by the references of their other ends. */
export interface ExportItem {
  id: string;
  reference: string;
  externalId: string | null;
  title: string;
  html: string;
  kind: string;
  heading: boolean;
  /** Reference of the parent, or null at the top. */
  parent: string | null;
  depth: number;
  fields: Record<string, FieldValue>;
  /** Phrase, and the references at the other ends. */
  links: { linkKind: string; reversed: boolean; phrase: string; targets: string[] }[];
}
