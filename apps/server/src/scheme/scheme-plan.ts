import type { SchemeEdit } from '@coomb/contract';
import { assembleScheme, checkScheme, type FieldValue, labelOf, type Scheme, type SchemeIssue, type SchemePart, type SchemeSort } from '@coomb/core';
import { CoombError } from '@coomb/contract';
import type { SchemePartValue } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import { toPart } from '../project-state/scheme-parts.js';

export interface Rename {
  field: string;
  from: string;
  to: string;
}

export interface SchemeEditsWish {
  edits: readonly SchemeEdit[];
  renames: readonly Rename[];
  answers: Readonly<Record<string, string>>;
}

/** One part that is to be otherwise: its row, and what stood before. */
export interface PlannedEdit {
  row: SchemePartValue | null;
  before: SchemePart | null;
  after: SchemePart;
}

export type ReadValues = (field: string) => Promise<ReadonlyMap<string, FieldValue>>;

/** A change of the scheme, thought through: the scheme before and after, and what was answered about what no longer fits. */
export class SchemePlan {
  readonly before: Scheme;
  readonly after: Scheme;
  readonly edits: readonly PlannedEdit[];
  readonly issues: readonly SchemeIssue[];
  readonly partsAfter: readonly SchemePart[];
  private readonly values = new Map<string, Promise<ReadonlyMap<string, FieldValue>>>();

  constructor(
    readonly state: ProjectState,
    readonly wish: SchemeEditsWish,
    private readonly readValues: ReadValues,
    /** Recipes kept in the project. */
    readonly recipes: () => Promise<readonly { name: string; body: unknown }[]>,
  ) {
    const rows = new Map(state.schemeNow.parts().map((row) => [nameOf(row), row]));
    const parts = new Map([...rows].map(([name, row]) => [name, toPart(row)]));
    this.before = state.scheme;
    const edits: PlannedEdit[] = [];
    for (const { revision, ...after } of wish.edits) {
      const row = rows.get(nameOf(after)) ?? null;
      assertSeen(row, revision, after);
      const before = row && toPart(row);
      const part = after as SchemePart;
      if (before && isSame(before, part)) continue;
      edits.push({ row, before, after: part });
      parts.set(nameOf(after), part);
    }
    this.edits = edits;
    this.partsAfter = [...parts.values()];
    this.issues = checkScheme(this.partsAfter);
    this.after = assembleScheme(this.partsAfter);
  }

  get errors(): SchemeIssue[] {
    return this.issues.filter((issue) => issue.severity === 'error');
  }

  /** Edits of one sort. */
  editsOf<S extends SchemeSort>(sort: S): (PlannedEdit & { after: Extract<SchemePart, { sort: S }>; before: Extract<SchemePart, { sort: S }> | null })[] {
    // The filter leaves edits of the sort that was asked for.
    return this.edits.filter((edit) => edit.after.sort === sort) as never;
  }

  /** Values of a field by item, of items that are present, with renamed choices. */
  valuesOf(field: string): Promise<ReadonlyMap<string, FieldValue>> {
    let values = this.values.get(field);
    if (!values) this.values.set(field, (values = this.readValues(field)));
    return values;
  }

  /** A value of a field as it will be called. */
  renamed(field: string, value: FieldValue): FieldValue {
    const renames = this.wish.renames.filter((rename) => rename.field === field);
    if (renames.length === 0) return value;
    const to = (one: string) => renames.find((rename) => rename.from === one)?.to ?? one;
    return Array.isArray(value) ? [...new Set(value.map(to))] : typeof value === 'string' ? to(value) : value;
  }

  /** Kind that an item will have, by what was answered about its own. */
  kindAfter(node: number): string {
    const { kind } = this.state.items[node]!;
    const answer = this.wish.answers[`retired-kind:${kind}`];
    if (!answer?.startsWith('change:')) return kind;
    const is = this.before.kinds.find((one) => one.id === kind);
    const will = this.after.kinds.find((one) => one.id === kind);
    const to = answer.slice('change:'.length);
    return will?.retired && !is?.retired && this.after.kinds.some((one) => one.id === to && !one.retired) ? to : kind;
  }
}

function nameOf({ sort, key }: { sort: SchemeSort; key: string }): string {
  return `${sort} ${key}`;
}

function isSame(one: SchemePart, other: SchemePart): boolean {
  return one.rank === other.rank && one.retired === other.retired && JSON.stringify(one.body) === JSON.stringify(other.body);
}

/** Refuses an edit of a part that somebody else changed, or made, since it was seen. */
function assertSeen(row: SchemePartValue | null, revision: number | null, after: Omit<SchemeEdit, 'revision'>): void {
  if ((row?.revision ?? null) === revision) return;
  const label = labelOf(after as SchemePart) ?? 'What verifies';
  if (!row)
    throw new CoombError('changed-meanwhile', `"${label}" is not part of the scheme any more. Look at the scheme again before you change it.`, {
      key: after.key,
    });
  throw new CoombError(
    'changed-meanwhile',
    revision === null
      ? `The scheme has a part with the key "${after.key}" already, made meanwhile by somebody else: "${labelOf(toPart(row)) ?? ''}".`
      : `"${labelOf(toPart(row)) ?? 'What verifies'}" was changed by somebody else while you changed it. Both are shown; choose before you keep yours.`,
    { sort: after.sort, key: after.key, revision: row.revision, theirs: toPart(row) },
  );
}
