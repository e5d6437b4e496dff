import type { getProject, OutlineReply, ReplyOf } from '@coomb/contract';

const isSame = (one: readonly string[], other: readonly string[]) => one.length === other.length && one.every((id, index) => id === other[index]);

/**
 * An outline whose kinds and collections are counted as the project counts them: the two come in answers of their own, and the scheme or the
 * collections may have changed between them. Undefined where it names what the project does not know: one of the two is being fetched again.
 */
export function alignOutline(
  outline: OutlineReply | undefined,
  { scheme, collections }: Pick<ReplyOf<typeof getProject>, 'scheme' | 'collections'>,
): OutlineReply | undefined {
  if (!outline) return undefined;
  const kinds = scheme.kinds.map((kind) => kind.id);
  const ids = collections.map((collection) => collection.id);
  if (isSame(outline.kinds, kinds) && isSame(outline.collections, ids)) return outline;
  const places = (list: readonly string[], own: readonly string[]) => list.map((id) => own.indexOf(id));
  const kindAt = places(outline.kinds, kinds);
  const collectionAt = places(outline.collections, ids);
  const kind = outline.kind.map((one) => kindAt[one] ?? -1);
  const collection = outline.collection.map((one) => collectionAt[one] ?? -1);
  return kind.includes(-1) || collection.includes(-1) ? undefined : { ...outline, kinds, collections: ids, kind, collection };
}
