import type { SchemeEdit, SchemeWish } from '@coomb/contract';
import { isSameBody, nameKey, type PartOf, type SchemeBodies, type SchemePart, type SchemeSort } from '@coomb/core';

/** What somebody has changed of a scheme and not kept yet. */
export interface SchemeDraft {
  edits: readonly SchemeEdit[];
  renames: readonly { field: string; from: string; to: string }[];
  answers: Readonly<Record<string, string>>;
}

export const noDraft: SchemeDraft = { edits: [], renames: [], answers: {} };

export const nameOf = ({ sort, key }: Pick<SchemePart, 'sort' | 'key'>) => `${sort} ${key}`;

/** The scheme's parts as they would be. */
export function applyDraft(parts: readonly SchemeEdit[], { edits }: SchemeDraft): SchemeEdit[] {
  const changed = new Map(edits.map((edit) => [nameOf(edit), edit]));
  const known = new Set(parts.map(nameOf));
  return [...parts.map((part) => changed.get(nameOf(part)) ?? part), ...edits.filter((edit) => !known.has(nameOf(edit)))];
}

/** The draft with some parts otherwise; one that says again what the scheme says is no edit any more. */
export function changeParts(parts: readonly SchemeEdit[], draft: SchemeDraft, changed: readonly SchemeEdit[]): SchemeDraft {
  const edits = new Map(draft.edits.map((edit) => [nameOf(edit), edit]));
  const stored = new Map(parts.map((part) => [nameOf(part), part]));
  for (const part of changed) {
    const is = stored.get(nameOf(part));
    if (is && isSameBody(is as SchemePart, part as SchemePart) && is.rank === part.rank && is.retired === part.retired) edits.delete(nameOf(part));
    else edits.set(nameOf(part), part);
  }
  return { ...draft, edits: [...edits.values()] };
}

/** A choice of a field that is called otherwise: on the field, and on the items when the change is kept. One that is new on the field has no items. */
export function renameOption(parts: readonly SchemeEdit[], draft: SchemeDraft, field: string, from: string, to: string): SchemeDraft {
  const part = applyDraft(parts, draft).find((one): one is Extract<SchemeEdit, { sort: 'field' }> => one.sort === 'field' && one.key === field)!;
  const options = (part.body.options ?? []).map((option) => (option === from ? to : option));
  const next = changeParts(parts, draft, [{ ...part, body: { ...part.body, options } }]);
  const stored = parts.find((one): one is Extract<SchemeEdit, { sort: 'field' }> => one.sort === 'field' && one.key === field);
  const earlier = draft.renames.find((rename) => rename.field === field && rename.to === from);
  const first = earlier?.from ?? from;
  const others = draft.renames.filter((rename) => rename !== earlier);
  const isStored = stored?.body.options?.includes(first) ?? false;
  return { ...next, renames: isStored && first !== to ? [...others, { field, from: first, to }] : others };
}

/** What is to be sent: the edits with the revisions that were seen, renames of choices that are still meant. */
export function toWish({ edits, renames, answers }: SchemeDraft): SchemeWish {
  const fields = new Set(edits.filter((edit) => edit.sort === 'field').map((edit) => edit.key));
  return { edits: [...edits], renames: renames.filter((rename) => fields.has(rename.field)), answers };
}

/** A part that the scheme has not yet, behind the others of its sort. */
export function newPart<S extends SchemeSort>(parts: readonly SchemeEdit[], sort: S, label: string, body: SchemeBodies[S]): SchemeEdit {
  const own = parts.filter((part) => part.sort === sort);
  const rank = Math.max(-1, ...own.map((part) => part.rank)) + 1;
  const key = nameKey(
    label,
    own.map((part) => part.key),
    sort,
  );
  // Sort and body belong together where this is called; the union does not say so.
  return { sort, key, rank, retired: false, revision: null, body } as unknown as SchemeEdit;
}

/** The part moved one place among those given, which are its like in order. */
export function movePart(order: readonly SchemeEdit[], part: SchemeEdit, by: -1 | 1): SchemeEdit[] {
  const at = order.findIndex((one) => nameOf(one) === nameOf(part));
  const other = order[at + by];
  if (at < 0 || !other) return [];
  if (other.rank !== part.rank)
    return [
      { ...part, rank: other.rank },
      { ...other, rank: part.rank },
    ];
  return [{ ...part, rank: part.rank + by * 0.5 }];
}

export function findPart<S extends SchemeSort>(parts: readonly SchemeEdit[], sort: S, key: string): (PartOf<S> & { revision: number | null }) | undefined {
  // The key names a part of the sort that was asked for.
  return parts.find((part) => part.sort === sort && part.key === key) as never;
}
