import { assembleScheme, type Scheme, type SchemePart } from '@coomb/core';
import type { SchemePartRow } from '../ledger/change.js';

/** A row as core knows it: what is withdrawn is retired. */
export function toPart({ sort, key, rank, withdrawn, body }: SchemePartRow): SchemePart {
  // The row's body is of its sort: the two are only ever written together.
  return { sort, key, rank, retired: withdrawn, body } as SchemePart;
}

/** The scheme of a project, from its rows in any order. */
export function buildScheme(rows: Iterable<SchemePartRow>): Scheme {
  return assembleScheme([...rows].sort((a, b) => a.number - b.number).map(toPart));
}

/** Fields that the rules of a scheme filter by. */
export function ruleFieldsOf(scheme: Scheme): string[] {
  return [...new Set(scheme.rules.flatMap((rule) => [rule.of.field?.id, rule.reach.field?.id]).filter((field) => field !== undefined))];
}

/** Rows of new parts, numbered among their like. */
export function buildPartRows(projectId: string, parts: readonly SchemePart[], newId: () => string): SchemePartRow[] {
  const made = new Map<string, number>();
  return parts.map(({ retired, ...part }) => {
    const number = made.get(part.sort) ?? 0;
    made.set(part.sort, number + 1);
    return { id: newId(), projectId, revision: 1, withdrawn: retired, number, ...part };
  });
}
