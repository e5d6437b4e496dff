import type { Scheme } from '@coomb/core';
import type { Change, SchemePartValue } from '../ledger/change.js';
import { buildScheme } from './scheme-parts.js';

/** A project's scheme: the parts that people change, each with its revision, and what they make together. */
export class ProjectScheme {
  private readonly byId: Map<string, SchemePartValue>;
  /** Another one after each change of it. */
  now: Scheme;

  constructor(parts: readonly SchemePartValue[]) {
    this.byId = new Map(parts.map((part) => [part.id, part]));
    this.now = buildScheme(this.byId.values());
  }

  /** Part by part, with the revisions that people saw. */
  parts(): SchemePartValue[] {
    return [...this.byId.values()].sort((a, b) => a.number - b.number);
  }

  apply(changes: readonly Change[]): void {
    let isOther = false;
    for (const change of changes) {
      if (change.entity !== 'schemePart') continue;
      this.byId.set(change.after.id, change.after);
      isOther = true;
    }
    if (isOther) this.now = buildScheme(this.byId.values());
  }

  /** What these changes would make of it. */
  after(changes: readonly Change[]): Scheme {
    const parts = new Map(this.byId);
    for (const change of changes) if (change.entity === 'schemePart') parts.set(change.after.id, change.after);
    return buildScheme(parts.values());
  }
}
