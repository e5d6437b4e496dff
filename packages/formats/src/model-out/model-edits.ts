import {
  applyModelRecipe,
  type ElementRule,
  type LinkRole,
  expandUse,
  findKindOfRole,
  findLinkKind,
  type ModelDocument,
  type ModelElement,
  type ModelRecipe,
  type RecipeOutcome,
  type RelationRule,
  type Scheme,
} from '@coomb/core';
import { USUAL_RELATIONS } from './usual-relations.js';
import { findMoved, type KeptDrawing, type MovedDrawings } from './moved-drawings.js';
import { plainText } from '../rich-text/plain-text.js';
import type { ReqifItem } from '../reqif/build-reqif-edits.js';

/** An element that a model gets, with those that it owns. */
export interface AddedElement {
  id: string;
  type: string;
  role: string | undefined;
  stereotypes: string[];
  name: string;
  text: string;
  reference: string;
  /** Element that owns it, or nothing for the outermost. */
  parent: string | null;
  values: ReadonlyMap<string, string>;
  /** Element that it is a use of. */
  typedBy?: string;
}

export interface AddedRelation {
  id: string;
  type: string;
  stereotypes: string[];
  from: string;
  to: string;
  /** Uses of an end in which it holds only: where the path begins, and the properties that lead down to the end. */
  fromUse?: readonly string[];
  toUse?: readonly string[];
}

/** What became of a model since it was read: elements and relations by the ids that they have in it. Everything else goes out as it came in. */
export interface ModelEdits extends MovedDrawings {
  names: ReadonlyMap<string, string>;
  texts: ReadonlyMap<string, string>;
  references: ReadonlyMap<string, string>;
  values: ReadonlyMap<string, ReadonlyMap<string, string | null>>;
  /** What uses are uses of now; nothing for those that are uses of nothing any more. */
  types: ReadonlyMap<string, string | null>;
  removed: ReadonlySet<string>;
  added: readonly AddedElement[];
  removedRelations: readonly { relation: string; from: string; to: string }[];
  addedRelations: readonly AddedRelation[];
}

/** What is known here of a model beside its items. */
export interface Kept {
  drawings: readonly KeptDrawing[];
  /** What links are in the models that they came with, by kind and items: "«Trace» Abstraction". */
  linkSorts: ReadonlyMap<string, string>;
}
const NOTHING_KEPT: Kept = { drawings: [], linkSorts: new Map() };

/** Relations that can be added between any two: of UML those that ask for no ends of a sort, of other notations those that whoever writes the file checks. */
const BETWEEN_ANY: Record<ModelDocument['notation'], ReadonlySet<string>> = {
  uml: new Set(['Dependency', 'Abstraction', 'Realization', 'Usage']),
  bpmn: new Set(['SequenceFlow', 'MessageFlow']),
  dmn: new Set(['InformationRequirement', 'KnowledgeRequirement', 'AuthorityRequirement']),
  ssp: new Set(),
  ecore: new Set(),
};
/** What each part of a trace is in notations other than UML. */
const IN_NOTATION: Partial<Record<ModelDocument['notation'], Partial<Record<LinkRole, { type: string; stereotypes: string[] }>>>> = {
  uml: USUAL_RELATIONS,
  bpmn: { leads: { type: 'SequenceFlow', stereotypes: [] }, depends: { type: 'MessageFlow', stereotypes: [] } },
  dmn: { depends: { type: 'InformationRequirement', stereotypes: [] } },
};

/** The parts of a sort as recipes name it: `«Block» «Risky» part Property`. */
function partsOf(sort: string): { type: string; role: string | undefined; stereotypes: string[] } {
  const stereotypes = [...sort.matchAll(/«([^»]*)»/g)].map((found) => found[1]!);
  const words = sort.replace(/«[^»]*»\s*/g, '').split(' ');
  return { type: words.at(-1)!, role: words.length > 1 ? words[0] : undefined, stereotypes };
}

/** What must be edited in the model that the items came from, so that it says what they say now. Nothing that was not changed here is touched. */
export function buildModelEdits(
  scheme: Scheme,
  recipe: ModelRecipe,
  model: ModelDocument,
  items: readonly ReqifItem[],
  beside: Kept = NOTHING_KEPT,
): ModelEdits {
  const elements = new Map(model.elements.map((element) => [element.id, element]));
  const drawings = new Set(model.drawings.map(({ id }) => id));
  const rules = new Map(recipe.elements.map((rule) => [rule.sort, rule]));
  const ruleOfKind = findRules(recipe.elements, model);
  const idOf = (item: ReqifItem) =>
    item.externalId !== null && (elements.has(item.externalId) || drawings.has(item.externalId)) ? item.externalId : `coomb-${item.id}`;
  const edits = {
    names: new Map<string, string>(),
    texts: new Map<string, string>(),
    references: new Map<string, string>(),
    values: new Map<string, Map<string, string | null>>(),
    types: new Map<string, string | null>(),
    added: [] as AddedElement[],
  };
  const section = findKindOfRole(scheme, 'package')?.id;
  const ids = new Map(items.map((item) => [item.id, idOf(item)]));
  const isTyping = (linkKind: string) => findLinkKind(scheme, linkKind)?.role === 'types';
  const typeOf = (item: ReqifItem) => {
    const ends = item.ends.flatMap(({ linkKind, reversed, other, elsewhere }) => (!reversed && isTyping(linkKind) ? (ids.get(other) ?? elsewhere ?? []) : []));
    const before = elements.get(idOf(item))?.typedBy;
    return ends.find((end) => end === before) ?? ends[0];
  };
  const kept = new Set<string>();
  for (const item of items) {
    const id = idOf(item);
    kept.add(id);
    const element = elements.get(id);
    if (drawings.has(id)) {
      if (item.changed.has('title')) edits.names.set(id, item.title);
      continue;
    }
    if (!element) {
      const rule = (item.heading && section !== undefined && ruleOfKind.get(section)) || ruleOfKind.get(item.kind);
      if (!rule) continue;
      const parent = item.parentAt < 0 ? null : idOf(items[item.parentAt]!);
      const values = new Map(rule.values.flatMap(({ name, meaning }) => sayField(item, meaning).map((text) => [name, text] as const)));
      const typedBy = typeOf(item);
      edits.added.push({
        ...{ id, ...partsOf(rule.sort), name: item.title, text: plainText(item.html), reference: item.reference, parent, values },
        ...(typedBy !== undefined && { typedBy }),
      });
      continue;
    }
    if (item.changed.has('title')) edits.names.set(id, item.title);
    const typedBy = typeOf(item);
    if (typedBy !== undefined && typedBy !== element.typedBy) edits.types.set(id, typedBy);
    else if (typedBy === undefined && element.typedBy !== null && item.gone?.some((one) => isTyping(one.linkKind) && ids.get(one.other) === element.typedBy))
      edits.types.set(id, null);
    if (item.changed.has('text')) edits.texts.set(id, plainText(item.html));
    for (const { name, meaning } of rules.get(sortIn(model, recipe, element.id))?.values ?? []) {
      if (meaning.as !== 'field' || !item.changed.has(`field:${meaning.field}`)) continue;
      const own = edits.values.get(id) ?? new Map<string, string | null>();
      own.set(name, sayField(item, meaning)[0] ?? null);
      edits.values.set(id, own);
    }
  }
  const read = applyModelRecipe(scheme, recipe, model);
  const removed = new Set(read.drafts.map(({ externalId }) => externalId!).filter((id) => !kept.has(id)));
  return { ...edits, removed, ...findMoved(model, beside.drawings), ...buildRelations(scheme, recipe, model, items, idOf, removed, read, beside.linkSorts) };
}

/** The sort that most elements of a kind have. */
function findRules(rules: readonly ElementRule[], model: ModelDocument): Map<string, ElementRule> {
  const counts = new Map<string, number>();
  for (const element of model.elements) counts.set(sortText(element), (counts.get(sortText(element)) ?? 0) + 1);
  const found = new Map<string, ElementRule>();
  for (const rule of rules.toSorted((a, b) => (counts.get(b.sort) ?? 0) - (counts.get(a.sort) ?? 0)))
    if (rule.becomes === 'items' && rule.kind && !found.has(rule.kind)) found.set(rule.kind, rule);
  return found;
}

const sortText = ({ stereotypes, role, type }: { stereotypes: string[]; role?: string; type: string }) =>
  `${stereotypes
    .toSorted()
    .map((name) => `«${name}» `)
    .join('')}${role ? `${role} ` : ''}${type}`;

const sorts = new WeakMap<ModelDocument, Map<string, string>>();
function sortIn(model: ModelDocument, _: ModelRecipe, id: string): string {
  let known = sorts.get(model);
  if (!known) sorts.set(model, (known = new Map(model.elements.map((element) => [element.id, sortText(element)]))));
  return known.get(id) ?? '';
}

function sayField(item: ReqifItem, meaning: { as: string; field?: string }): string[] {
  if (meaning.as === 'reference') return [item.reference];
  if (meaning.as !== 'field') return [];
  const value = item.fields[meaning.field!];
  if (value === undefined || value === null || value === '') return [];
  return [Array.isArray(value) ? value.join(', ') : typeof value === 'string' && value.startsWith('<') ? plainText(value) : String(value)];
}

/** A path of items as a model tells it: where it begins, and the properties on the way; neither what those are uses of, nor the end. */
function shortenUse(elements: ReadonlyMap<string, ModelElement>, path: readonly string[]): string[] {
  const inside = path.slice(1, -1);
  return [path[0]!, ...inside.filter((id, at) => elements.get(inside[at - 1] ?? path[0]!)?.typedBy !== id)];
}

function buildRelations(
  scheme: Scheme,
  recipe: ModelRecipe,
  model: ModelDocument,
  items: readonly ReqifItem[],
  idOf: (item: ReqifItem) => string,
  removed: ReadonlySet<string>,
  read: RecipeOutcome,
  linkSorts: ReadonlyMap<string, string>,
): Pick<ModelEdits, 'removedRelations' | 'addedRelations'> {
  const ids = new Map(items.map((item) => [item.id, idOf(item)]));
  const itemOf = new Map(items.map((item) => [idOf(item), item.id]));
  const idOfReference = new Map(items.map((item) => [item.reference, idOf(item)]));
  const elements = new Map(model.elements.map((element) => [element.id, element]));
  const readUse = (use: string | undefined) => use?.split('/').map((reference) => idOfReference.get(reference) ?? '');
  const keyOf = (linkKind: string, from: string, to: string, fromUse?: readonly string[], toUse?: readonly string[]) =>
    [linkKind, from, to, fromUse?.join('>') ?? '', toUse?.join('>') ?? ''].join(' ').trimEnd();
  const present = new Map<string, { linkKind: string; from: string; to: string; fromUse?: readonly string[]; toUse?: readonly string[] }>();
  const taken = new Set<string>();
  for (const item of items) {
    const own = ids.get(item.id)!;
    for (const { linkKind, reversed, other, ownUse, otherUse, elsewhere } of item.ends) {
      const end = ids.get(other) ?? elsewhere;
      const [fromUse, toUse] = [readUse(ownUse), readUse(otherUse)];
      // A use that goes beyond the model has no place in it; what reads the file back tells that.
      if (!end || fromUse?.includes('') || toUse?.includes('')) continue;
      // Told once within the file; what leads in from another one is told here as well.
      if (reversed && ids.has(other)) continue;
      const ends = reversed ? { from: end, to: own } : { from: own, to: end };
      const uses = reversed
        ? { ...(toUse && { fromUse: toUse }), ...(fromUse && { toUse: fromUse }) }
        : { ...(fromUse && { fromUse }), ...(toUse && { toUse }) };
      present.set(keyOf(linkKind, ends.from, ends.to, uses.fromUse, uses.toUse), { linkKind, ...ends, ...uses });
    }
    for (const { linkKind, other } of item.gone ?? []) if (ids.has(other)) taken.add(keyOf(linkKind, own, ids.get(other)!));
  }
  const rules = new Map(recipe.relations.map((rule) => [rule.sort, rule]));
  const betweenAny = BETWEEN_ANY[model.notation];
  const known = new Set<string>();
  const removedRelations: { relation: string; from: string; to: string }[] = [];
  for (const relation of model.relations) {
    const rule = rules.get(sortText(relation));
    for (const from of relation.from)
      for (const to of relation.to) {
        const [a, b] = rule?.reversed ? [to, from] : [from, to];
        const uses = [relation.fromUse && expandUse(elements, relation.fromUse, from), relation.toUse && expandUse(elements, relation.toUse, to)];
        if (rule?.reversed) uses.reverse();
        const keys = (rule?.linkKinds ?? []).map((kind) => keyOf(kind, a, b, ...uses));
        const anywhere = (rule?.linkKinds ?? []).map((kind) => keyOf(kind, a, b));
        for (const key of keys) known.add(key);
        // A relation that never became a link is the partner's: it stays.
        if (anywhere.some((key) => taken.has(key)) && !keys.some((key) => present.has(key))) removedRelations.push({ relation: relation.id, from, to });
      }
  }
  // What leads on through nodes that are no items is in the file, though no relation says it alone.
  for (const { draft, linkKind, target, reversed } of read.links) {
    const own = read.drafts[draft]!.externalId;
    if (own !== null && !reversed) known.add(keyOf(linkKind, own, target));
  }
  const addedRelations = [...present].flatMap(([key, { linkKind, from, to, fromUse, toUse }]): AddedRelation[] => {
    const role = findLinkKind(scheme, linkKind)?.role;
    // What a part is a use of is told by its type, not by a relation.
    if (known.has(key) || role === 'types' || role === 'composes' || removed.has(from) || removed.has(to)) return [];
    const told = linkSorts.get(`${linkKind} ${itemOf.get(from)} ${itemOf.get(to)}`);
    const fits = (one: RelationRule) => betweenAny.has(partsOf(one.sort).type);
    const rule =
      recipe.relations.find((one) => one.sort === told) ??
      recipe.relations.find((one) => one.linkKinds[0] === linkKind && fits(one)) ??
      recipe.relations.find((one) => one.linkKinds.includes(linkKind) && fits(one));
    const usual =
      told !== undefined && betweenAny.has(partsOf(told).type) ? partsOf(told) : rule ? partsOf(rule.sort) : role && IN_NOTATION[model.notation]?.[role];
    if (!usual) return [];
    const [a, b] = rule?.reversed ? [to, from] : [from, to];
    const uses = [fromUse && shortenUse(elements, fromUse), toUse && shortenUse(elements, toUse)];
    if (rule?.reversed) uses.reverse();
    const place = uses.flatMap((use) => (use ? [`-${use.join('-')}`] : [])).join('');
    return [
      {
        ...{ id: `coomb-${linkKind}-${a}-${b}${place}`.replace(/[^\w.-]/g, '_'), type: usual.type, stereotypes: usual.stereotypes, from: a, to: b },
        ...(uses[0] && { fromUse: uses[0] }),
        ...(uses[1] && { toUse: uses[1] }),
      },
    ];
  });
  return { removedRelations, addedRelations };
}
