import { offeredKinds, type Scheme } from '../scheme/scheme.js';
import type { Draft } from './draft.js';

const SECTION = /^(section|heading|chapter|title|header)s?$/i;

/** Reads what a column of kinds says: a kind by its name, or that the row is a section. */
export class KindNames {
  private readonly kinds = new Map<string, string>();

  constructor(scheme: Scheme) {
    for (const kind of offeredKinds(scheme)) for (const name of [kind.id, kind.label, kind.plural]) this.kinds.set(name.toLowerCase(), kind.id);
  }

  /** `otherwise` is the kind of rows that say none, and of sections. Undefined for a name that the project does not know. */
  find(text: string, otherwise: string): { kind: string; role: Draft['role'] } | undefined {
    if (!text) return { kind: otherwise, role: 'item' };
    const kind = this.kinds.get(text.toLowerCase());
    if (kind) return { kind, role: 'item' };
    return SECTION.test(text) ? { kind: otherwise, role: 'section' } : undefined;
  }
}
