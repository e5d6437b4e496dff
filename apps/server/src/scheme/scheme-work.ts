import type { FieldValue } from '@coomb/core';
import type { Change, CollectionValue, ItemValue, LinkValue } from '../ledger/change.js';

export interface LinkChange {
  withdraw?: boolean;
  kind?: string;
}

/** What a change of the scheme does to items, links and collections: gathered from all effects, then written once a row. */
export class SchemeWork {
  private readonly items = new Map<string, ((row: ItemValue) => void)[]>();
  private readonly links = new Map<string, LinkChange>();
  private readonly collections = new Map<string, string>();

  changeItem(id: string, change: (row: ItemValue) => void): void {
    const known = this.items.get(id);
    if (known) known.push(change);
    else this.items.set(id, [change]);
  }

  /** Gives a field of an item another value; null takes it away. */
  setField(id: string, field: string, value: FieldValue): void {
    this.changeItem(id, (row) => {
      row.fields = { ...row.fields };
      if (value === null) delete row.fields[field];
      else row.fields[field] = value;
    });
  }

  changeLink(id: string, change: LinkChange): void {
    this.links.set(id, { ...this.links.get(id), ...change });
  }

  changeCollection(id: string, kind: string): void {
    this.collections.set(id, kind);
  }

  get itemIds(): string[] {
    return [...this.items.keys()];
  }

  get linkIds(): string[] {
    return [...this.links.keys()];
  }

  /** The changes of rows as they stand now; each keeps the moment and the person that made it. */
  build(
    rows: { items: Map<string, ItemValue>; links: Map<string, LinkValue>; collections: readonly CollectionValue[] },
    by: { person: string; now: string },
  ): Change[] {
    const changes: Change[] = [];
    for (const [id, steps] of this.items) {
      const before = rows.items.get(id);
      if (!before || before.withdrawn) continue;
      const after = { ...before };
      for (const step of steps) step(after);
      changes.push({ entity: 'item', before, after: { ...after, revision: before.revision + 1, changedAt: by.now, changedBy: by.person } });
    }
    for (const [id, { withdraw, kind }] of this.links) {
      const before = rows.links.get(id);
      if (!before || before.withdrawn) continue;
      changes.push({ entity: 'link', before, after: { ...before, revision: before.revision + 1, withdrawn: withdraw ?? false, kind: kind ?? before.kind } });
    }
    for (const [id, kind] of this.collections) {
      const before = rows.collections.find((one) => one.id === id);
      if (before) changes.push({ entity: 'collection', before, after: { ...before, kind, revision: before.revision + 1 } });
    }
    return changes;
  }
}
