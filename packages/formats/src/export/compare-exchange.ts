import type { ExchangeDocument, ExchangeNode, ExchangeRecipe } from '@coomb/core';
import type { ReqifItem } from '../reqif/build-reqif-edits.js';
import type { Difference } from './compare-back.js';

/**
 * Compares a partner's file that goes out with the very file that came in: whatever is not as it was and was not changed here is told. What
 * was stored of it plays no part, so that what was never stored cannot be lost unseen.
 */
export function compareExchange(recipe: ExchangeRecipe, items: readonly ReqifItem[], before: ExchangeDocument, after: ExchangeDocument): Difference[] {
  const found = new Map<string, Difference>();
  const tell = (what: string, reference: string, was: string, is: string) => {
    const known = found.get(what);
    if (known) known.items.push({ id: '', reference });
    else found.set(what, { what, items: [{ id: '', reference }], before: was, after: is, isMarkup: false });
  };
  const itemOf = new Map(items.flatMap((item) => (item.externalId === null ? [] : [[item.externalId, item] as const])));
  const types = new Map(recipe.types.map((type) => [type.type, type]));
  const read = (object: { type: string }) => Boolean(types.get(object.type)?.kind);
  const kept = new Map(after.objects.map((object) => [object.id, object]));
  /** Objects that became items and whose items are withdrawn here go from the file. */
  const mayGo = new Set(before.objects.filter((object) => read(object) && !itemOf.has(object.id)).map((object) => object.id));
  for (const object of before.objects) {
    const now = kept.get(object.id);
    if (!now) {
      if (!mayGo.has(object.id)) tell('Object of the file that is gone', object.id, object.name || object.id, '');
      continue;
    }
    const changed = itemOf.get(object.id)?.changed ?? new Set<string>();
    const type = types.get(object.type);
    const nameOf = new Map(type?.attributes.map((one) => [one.id, one] as const));
    for (const id of new Set([...Object.keys(object.values), ...Object.keys(now.values)])) {
      const [was, is] = [textOf(object.values[id]), textOf(now.values[id])];
      const { name, meaning } = nameOf.get(id) ?? { name: id, meaning: { as: 'nothing' } };
      if (was !== is && !isChangedHere(meaning as { as: string; field?: string }, changed)) tell(`Value of the file: ${name}`, object.id, was, is);
    }
  }
  const relations = new Set(after.relations.map((relation) => relation.id));
  const kindOf = new Map(recipe.relations.map((relation) => [relation.type, relation]));
  for (const relation of before.relations) {
    if (relations.has(relation.id) || mayGo.has(relation.from) || mayGo.has(relation.to)) continue;
    const kind = kindOf.get(relation.type);
    const [from, to] = kind?.reversed ? [relation.to, relation.from] : [relation.from, relation.to];
    const end = itemOf.get(to)?.id;
    const isTaken = itemOf.get(from)?.gone?.some((one) => one.linkKind === kind?.linkKind && one.other === end);
    if (!isTaken) tell('Relation of the file that is gone', relation.id, `${relation.from} ${kind?.name ?? relation.type} ${relation.to}`, '');
  }
  const shown = countPlaces(after);
  for (const [object, count] of countPlaces(before))
    if ((shown.get(object) ?? 0) < count && !mayGo.has(object) && !itemOf.has(object))
      tell('Place in an outline of the file that is gone', object, String(count), String(shown.get(object) ?? 0));
  return [...found.values()];
}

function isChangedHere(meaning: { as: string; field?: string }, changed: ReadonlySet<string>): boolean {
  if (meaning.as === 'field') return changed.has(`field:${meaning.field}`);
  if (meaning.as === 'heading' || meaning.as === 'title') return changed.has('title') || changed.has('heading');
  return changed.has(meaning.as);
}

const textOf = (value: string | string[] | undefined) => (value === undefined ? '' : Array.isArray(value) ? value.join(', ') : value);

function countPlaces({ outlines }: ExchangeDocument): Map<string, number> {
  const count = new Map<string, number>();
  const open: ExchangeNode[] = outlines.flatMap((outline) => outline.nodes);
  for (let node = open.pop(); node; node = open.pop()) {
    count.set(node.object, (count.get(node.object) ?? 0) + 1);
    open.push(...node.children);
  }
  return count;
}
