import { assembleScheme, type Scheme, type SchemeEntry, type SchemePart } from '@coomb/core';
import type { Change, SchemePartValue } from '../ledger/change.js';

/** A row as core knows it: what is withdrawn is retired. */
export function toPart({ sort, key, rank, withdrawn, body }: SchemePartValue): SchemePart {
  // The row's body is of its sort: the two are only ever written together.
  return { sort, key, rank, retired: withdrawn, body } as SchemePart;
}

/** The scheme of a project, from its rows in any order. */
export function buildScheme(rows: Iterable<SchemePartValue>): Scheme {
  return assembleScheme([...rows].sort((a, b) => a.number - b.number).map(toPart));
}

/** Fields that the rules of a scheme filter by. */
export function ruleFieldsOf(scheme: Scheme): string[] {
  return [...new Set(scheme.rules.flatMap((rule) => [rule.of.field?.id, rule.reach.field?.id]).filter((field) => field !== undefined))];
}

/** Rows of new parts, numbered among their like. */
export function buildPartRows(projectId: string, parts: readonly SchemePart[], newId: () => string): SchemePartValue[] {
  const made = new Map<string, number>();
  return parts.map(({ retired, ...part }) => {
    const number = made.get(part.sort) ?? 0;
    made.set(part.sort, number + 1);
    return { id: newId(), projectId, revision: 1, withdrawn: retired, number, ...part };
  });
}

/** Changes that add parts to a scheme, or take retired ones back in use: behind the present ones, in their order. */
export function buildNewParts(projectId: string, rows: readonly SchemePartValue[], parts: readonly SchemeEntry[], newId: () => string): Change[] {
  const made = new Map<string, number>();
  const last = new Map<string, number>();
  for (const { sort, rank } of rows) {
    made.set(sort, (made.get(sort) ?? 0) + 1);
    last.set(sort, Math.max(last.get(sort) ?? -1, rank));
  }
  return parts.map(({ theirs: { retired: _, ...part } }): Change => {
    const before = rows.find((row) => row.sort === part.sort && row.key === part.key) ?? null;
    if (before) return { entity: 'schemePart', before, after: { ...before, withdrawn: false, revision: before.revision + 1 } };
    const number = made.get(part.sort) ?? 0;
    const rank = (last.get(part.sort) ?? -1) + 1;
    made.set(part.sort, number + 1);
    last.set(part.sort, rank);
    return { entity: 'schemePart', before, after: { id: newId(), projectId, revision: 1, withdrawn: false, ...part, number, rank } };
  });
}
