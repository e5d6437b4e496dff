import { CoombError } from '@coomb/contract';
import type { Change, UsageValue } from '../ledger/change.js';
import { findWholes } from '../project-state/find-wholes.js';
import type { LightItem } from '../project-state/light-item.js';
import type { ProjectState } from '../project-state/project-state.js';

/** Finds usages by their paths, and makes those that are not stored yet: each path once. */
export class UsageFinder {
  readonly made: Change[] = [];
  private readonly byPath: Map<string, string>;

  constructor(
    private readonly state: ProjectState,
    private readonly newId: () => string,
    /** Items that are not in the project yet: what they are parts of is taken on trust. */
    private readonly isNew: (id: string) => boolean = () => false,
  ) {
    this.byPath = new Map([...state.usages.values()].flatMap(({ id, path, withdrawn }) => (withdrawn ? [] : [[path.join(' '), id] as const])));
  }

  /** Id of the usage of an item that a path leads to; null where none is asked for. Refuses a path that does not lead there from part to part. */
  find(item: Pick<LightItem, 'id' | 'reference'>, path: readonly string[] | undefined): string | null {
    if (path === undefined || path.length === 0) return null;
    const known = this.byPath.get(path.join(' '));
    if (known !== undefined) return known;
    if (path.at(-1) !== item.id) throw new CoombError('input-invalid', `The path of a usage of ${item.reference} must end at it.`);
    if (path.length < 2) throw new CoombError('input-invalid', `A usage of ${item.reference} is a path of at least two items: what it is used in, and itself.`);
    path.slice(1).forEach((part, index) => {
      if (this.isNew(part) || this.isNew(path[index]!)) return;
      const node = this.state.nodeOf.get(part);
      const wholes = node === undefined ? [] : findWholes(this.state, node).map((one) => this.state.items[one]!.id);
      if (!wholes.includes(path[index]!))
        throw new CoombError(
          'input-invalid',
          `${this.nameOf(part)} is no part of ${this.nameOf(path[index]!)}, so that this is no usage of ${item.reference}.`,
        );
    });
    const nothing = { revision: 1, withdrawn: false, fields: {}, meaningSeq: 0 };
    const row: UsageValue = { ...nothing, id: this.newId(), projectId: this.state.id, itemId: item.id, path: [...path] };
    this.made.push({ entity: 'usage', before: null, after: row });
    this.byPath.set(path.join(' '), row.id);
    return row.id;
  }

  /** The path of a usage that was found. */
  pathOf(usage: string): readonly string[] {
    for (const { after } of this.made) if (after.id === usage) return (after as UsageValue).path;
    return this.state.usages.pathOf(usage);
  }

  private nameOf(id: string): string {
    return this.state.items[this.state.nodeOf.get(id) ?? -1]?.reference ?? id;
  }
}
