import { applyExchangeRecipe, escapeHtml, type ExchangeDocument, type ExchangeRecipe, type ExchangeRelation, type LinkMeaning, type Scheme } from '@coomb/core';
import type { ExportItem } from '../outgoing/export-item.js';
import { noEdits, type ReqifEdits, type ReqifNode, type ReqifValue } from './rewrite-reqif.js';

/** An item as it goes out into a ReqIF file: what was changed here since it was last exchanged. */
/** A link as one of its items has it. Uses are paths of references, parted by slashes, in which it holds only; `reference` tells of them too. */
export interface ItemEnd {
  linkKind: string;
  reversed: boolean;
  other: string;
  reference: string;
  ownUse?: string;
  otherUse?: string;
  /** Address of the other end in the model that its own collection goes out as, where that is another file. */
  elsewhere?: string;
}

export interface ReqifItem extends ExportItem {
  /** Names of the values that differ from what was last exchanged: `title`, `text`, `heading`, `field:<id>`. */
  changed: ReadonlySet<string>;
  /** Index of the parent in the list, or -1. */
  parentAt: number;
  /** All its links, by id and reference of their other ends, which may lie outside the list. */
  ends: ItemEnd[];
  /** Links from it that somebody removed: kind, and the item at the other end. Only their relations leave a partner's file. */
  gone?: readonly { linkKind: string; other: string }[];
}

/**
 * What must be edited in the file that the items came from, so that it says what they say now. Nothing that was not changed here is
 * touched; objects keep their identifiers, new ones take the item's.
 */
export function buildReqifEdits(scheme: Scheme, recipe: ExchangeRecipe, document: ExchangeDocument, items: readonly ReqifItem[], now: string): ReqifEdits {
  const objects = new Map(document.objects.map((object) => [object.id, object]));
  const outlines = new Map(document.outlines.map((outline) => [outline.id, outline]));
  const types = new Map(recipe.types.map((type) => [type.type, type]));
  const objectOf = (item: ReqifItem) => (item.externalId !== null && objects.has(item.externalId) ? item.externalId : `coomb-${item.id}`);
  const values = new Map<string, Map<string, ReqifValue | null>>();
  const added: { id: string; type: string; values: Map<string, ReqifValue> }[] = [];
  const listed = new Set(items.map((item) => item.id));
  const isRelation = (end: ReqifItem['ends'][number]) => listed.has(end.other) && recipe.relations.some((one) => one.linkKind === end.linkKind);
  for (const item of items) {
    if (item.externalId !== null && outlines.has(item.externalId)) continue;
    const object = item.externalId === null ? undefined : objects.get(item.externalId);
    const type = object ? types.get(object.type) : (recipe.types.find((one) => one.kind === item.kind) ?? recipe.types.find((one) => one.kind !== null));
    if (!type) continue;
    const changes = new Map<string, ReqifValue | null>();
    for (const { id, meaning } of type.attributes) {
      const name = meaning.as === 'field' ? `field:${meaning.field}` : meaning.as;
      if (object && !isTouched(name, item)) continue;
      const value = meaning.as === 'link' ? writeEnds(item, meaning, isRelation) : writeValue(document, id, name, item);
      if (value !== undefined) changes.set(id, value);
    }
    if (object) {
      if (changes.size > 0) values.set(object.id, changes);
    } else
      added.push({ id: objectOf(item), type: type.type, values: new Map([...changes].filter((entry): entry is [string, ReqifValue] => entry[1] !== null)) });
  }
  const kept = new Set(items.map(objectOf));
  const read = applyExchangeRecipe(scheme, recipe, document);
  const removed = new Set(read.drafts.map((draft) => draft.externalId!).filter((id) => objects.has(id) && !kept.has(id)));
  return {
    ...noEdits,
    values,
    added,
    removed,
    hierarchies: buildHierarchies(document, read.drafts, items, objectOf),
    ...buildRelations(recipe, document, items, objectOf, removed),
    options: findNewOptions(document, [...values.values(), ...added.map((object) => object.values)]),
    mediaTypes: document.embedded,
    now,
  };
}

/** Choices made here that the file has no option for. */
function findNewOptions(document: ExchangeDocument, written: readonly ReadonlyMap<string, ReqifValue | null>[]): Map<string, string[]> {
  const attributes = new Map(document.types.flatMap((type) => type.attributes).map((attribute) => [attribute.id, attribute]));
  const found = new Map<string, string[]>();
  for (const values of written)
    for (const [id, value] of values) {
      const { datatype, options = [] } = attributes.get(id) ?? {};
      if (value?.kind !== 'choice' || datatype === undefined) continue;
      for (const label of value.labels) {
        const own = found.get(datatype) ?? [];
        if (!options.includes(label) && !own.includes(label)) found.set(datatype, [...own, label]);
      }
    }
  return found;
}

/** A changed title goes to the name of a requirement or the title of a chapter, whichever it is. */
function isTouched(name: string, item: ReqifItem): boolean {
  if (name === 'heading') return item.changed.has('heading') || (item.heading && item.changed.has('title'));
  if (name === 'title') return item.changed.has('title') && !item.heading;
  return item.changed.has(name);
}

/** References of the other ends that no relation of the file can lead to. */
function writeEnds({ ends }: ReqifItem, { linkKind, reversed }: LinkMeaning, isRelation: (end: ReqifItem['ends'][number]) => boolean): ReqifValue | undefined {
  const named = ends.filter((end) => end.linkKind === linkKind && end.reversed === reversed && !isRelation(end)).map((end) => end.reference);
  return named.length > 0 ? { kind: 'text', text: named.join(', ') } : undefined;
}

/** Undefined when the attribute is none of the item's business. */
function writeValue(document: ExchangeDocument, attribute: string, name: string, item: ReqifItem): ReqifValue | null | undefined {
  const type = document.types.flatMap((one) => one.attributes).find((one) => one.id === attribute)?.type ?? 'text';
  const plain = (text: string): ReqifValue | null =>
    text === '' ? null : type === 'rich' ? { kind: 'rich', html: `<p>${escapeHtml(text)}</p>` } : { kind: 'text', text };
  if (name === 'reference') return plain(item.reference);
  if (name === 'title') return plain(item.title);
  if (name === 'heading') return plain(item.heading ? item.title : '');
  if (name === 'text')
    return type === 'rich'
      ? item.html
        ? { kind: 'rich', html: item.html }
        : null
      : plain(
          item.html
            .replace(/<[^>]*>/g, ' ')
            .replace(/\s+/g, ' ')
            .trim(),
        );
  if (!name.startsWith('field:')) return undefined;
  const value = item.fields[name.slice('field:'.length)];
  if (value === undefined || value === null || value === '') return null;
  if (type === 'choice' || type === 'choices') return { kind: 'choice', labels: Array.isArray(value) ? value : [String(value)] };
  if (type === 'rich') return { kind: 'rich', html: /^<(p|ul|ol|table)/.test(String(value)) ? String(value) : `<p>${escapeHtml(String(value))}</p>` };
  if (type === 'yesNo') return { kind: 'yesNo', text: value === true || value === 'yes' ? 'true' : 'false' };
  if (type === 'date') return { kind: 'date', text: `${String(value).slice(0, 10)}T00:00:00Z` };
  return { kind: type === 'number' ? 'number' : 'text', text: Array.isArray(value) ? value.join(', ') : String(value) };
}

interface Placed {
  externalId: string | null;
  parent: number;
}

/** New hierarchies of the specifications whose tree is not the one that was read. A tree that is the same keeps even objects shown twice. */
function buildHierarchies(
  document: ExchangeDocument,
  drafts: readonly Placed[],
  items: readonly ReqifItem[],
  objectOf: (item: ReqifItem) => string,
): Map<string, ReqifNode[]> {
  const [only] = document.outlines;
  const specifications = new Set(document.outlines.map((outline) => outline.id));
  const treeOf = (list: readonly Placed[]) => {
    const trees = new Map<string, ReqifNode[]>([...specifications].map((id) => [id, []]));
    const nodes = list.map(({ externalId }): ReqifNode => ({ object: externalId ?? '', children: [] }));
    list.forEach(({ externalId, parent }, index) => {
      if (externalId !== null && specifications.has(externalId)) return;
      const above = parent < 0 ? undefined : list[parent]!;
      const isTop = !above || (above.externalId !== null && specifications.has(above.externalId));
      const target = isTop ? trees.get(above?.externalId ?? only?.id ?? '') : nodes[parent]!.children;
      target?.push(nodes[index]!);
    });
    return trees;
  };
  const before = treeOf(drafts);
  const after = treeOf(
    items.map((item) => ({
      externalId: item.externalId !== null && specifications.has(item.externalId) ? item.externalId : objectOf(item),
      parent: item.parentAt,
    })),
  );
  return new Map([...after].filter(([id, nodes]) => JSON.stringify(nodes) !== JSON.stringify(before.get(id))));
}

function buildRelations(
  recipe: ExchangeRecipe,
  document: ExchangeDocument,
  items: readonly ReqifItem[],
  objectOf: (item: ReqifItem) => string,
  removed: ReadonlySet<string>,
): Pick<ReqifEdits, 'addedRelations' | 'removedRelations'> {
  const idOf = new Map(items.map((item) => [item.id, objectOf(item)]));
  const kindOf = new Map(recipe.relations.map((relation) => [relation.type, relation]));
  const keyOf = (linkKind: string, from: string, to: string, fromUse = '', toUse = '') => `${linkKind} ${from} ${to} ${fromUse} ${toUse}`.trim().toLowerCase();
  /** The link that a relation would make, whichever way round the file writes it. */
  const linkOf = ({ type, from, to, fromUse, toUse }: ExchangeRelation) => {
    const kind = kindOf.get(type);
    if (!kind?.linkKind) return undefined;
    return kind.reversed ? keyOf(kind.linkKind, to, from, toUse, fromUse) : keyOf(kind.linkKind, from, to, fromUse, toUse);
  };
  const present = new Map<string, { linkKind: string; from: string; to: string; fromUse?: string | undefined; toUse?: string | undefined }>();
  const taken = new Set<string>();
  for (const item of items) {
    const own = idOf.get(item.id)!;
    for (const { linkKind, reversed, other, ownUse, otherUse } of item.ends) {
      const end = idOf.get(other);
      if (!end || reversed) continue;
      present.set(keyOf(linkKind, own, end, ownUse, otherUse), { linkKind, from: own, to: end, fromUse: ownUse, toUse: otherUse });
    }
    for (const { linkKind, other } of item.gone ?? []) if (idOf.has(other)) taken.add(keyOf(linkKind, own, idOf.get(other)!));
  }
  // A relation that never became a link (another kind of ends, an unknown end, a type that the recipe leaves out) is the partner's: it stays.
  const isTaken = (relation: ExchangeRelation) => {
    const [link, anywhere] = [linkOf(relation), linkOf({ ...relation, fromUse: undefined, toUse: undefined })];
    return link !== undefined && taken.has(anywhere!) && !present.has(link);
  };
  const gone = document.relations.filter((relation) => removed.has(relation.from) || removed.has(relation.to) || isTaken(relation));
  const known = new Set(document.relations.map(linkOf));
  const added = [...present].flatMap(([key, { linkKind, from, to, fromUse, toUse }]) => {
    const relation = recipe.relations.find((one) => one.linkKind === linkKind);
    if (known.has(key) || !relation) return [];
    const ends = relation.reversed ? { from: to, to: from, fromUse: toUse, toUse: fromUse } : { from, to, fromUse, toUse };
    const place = [ends.fromUse, ends.toUse].filter(Boolean).map((use) => `-${use!.replace(/[^\w.-]/g, '_')}`);
    return [{ id: `coomb-${relation.type}-${ends.from}-${ends.to}${place.join('')}`, type: relation.type, ...ends }];
  });
  return { removedRelations: new Set(gone.map((relation) => relation.id)), addedRelations: added };
}
