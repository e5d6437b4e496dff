import { type FieldFindings, type FieldValue, findFieldFindings, findKind, type Scheme } from '@coomb/core';

/** An item with a value that may not fit, or without one: what the database picks out. */
export interface DoubtfulFields {
  id: string;
  kind: string;
  fields: Record<string, FieldValue>;
}

/** What the fields of items leave to be desired, of those items only, following every change. */
export class FoundFields {
  private readonly found: Map<string, FieldFindings>;

  constructor(found: Iterable<[string, FieldFindings]> = []) {
    this.found = new Map(found);
  }

  /** Looks at the items that the database picked out; all others are sound. */
  learn(scheme: Scheme, doubtful: readonly DoubtfulFields[]): void {
    this.found.clear();
    for (const { id, kind, fields } of doubtful) this.follow(scheme, id, kind, fields);
  }

  snapshot(): [string, FieldFindings][] {
    return [...this.found];
  }

  forget(id: string): void {
    this.found.delete(id);
  }

  get ids(): Iterable<string> {
    return this.found.keys();
  }

  get(id: string): FieldFindings | undefined {
    return this.found.get(id);
  }

  follow(scheme: Scheme, id: string, kind: string, fields: Record<string, FieldValue>): void {
    const findings = findFieldFindings(findKind(scheme, kind), fields);
    if (findings) this.found.set(id, findings);
    else this.found.delete(id);
  }
}
