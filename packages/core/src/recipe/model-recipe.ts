import { findKind, findLinkKind, isAllowed, type LinkKind, type Scheme } from '../scheme/scheme.js';
import { findKindOfRole, hasRole, linkKindsOfRole } from '../scheme/roles.js';
import type { FieldValue } from '../fields/field-value.js';
import { readFieldValue } from '../fields/read-field.js';
import type { SourcePlace } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import type { ModelDocument, ModelElement, ModelRelation } from '../source/model.js';
import { finish, type Stepwise } from '../steps/stepwise.js';
import { counted, figure } from '../wording/counted.js';
import { fitTitle } from '../wording/title.js';
import type { Meaning } from './document-recipe.js';
import { escapeHtml } from './document-words.js';
import type { Draft, DraftLink, RecipeOutcome } from './draft.js';
import { labelOfSort, sayType, sortOf } from './element-sort.js';
import { headingOfDetail, sayElement } from './say-detail.js';

/** What becomes of the elements of one sort. */
export interface ElementRule {
  sort: string;
  label: string;
  /** Items of a kind; a detail on the sheet of their owner; or nothing here, only kept in the file. */
  becomes: 'items' | 'detail' | 'file';
  kind: string | null;
  /** What each value that elements of the sort say is taken for. */
  values: { name: string; meaning: Meaning }[];
}

/** Which link a relation becomes: the first of the kinds that may join its ends; none where there is none. */
export interface RelationRule {
  sort: string;
  label: string;
  linkKinds: string[];
  reversed: boolean;
}

/** A reusable mapping from the sorts of elements and relations of models to kinds and links. Sorts that it does not name stay in the file. */
export interface ModelRecipe {
  name: string;
  elements: ElementRule[];
  relations: RelationRule[];
}

export function applyModelRecipe(scheme: Scheme, recipe: ModelRecipe, model: ModelDocument): RecipeOutcome {
  return finish(readModel(scheme, recipe, model));
}

/** As `applyModelRecipe`, element by element. Nothing of a model is silently nothing: what becomes no item is counted and named. */
export function readModel(scheme: Scheme, recipe: ModelRecipe, model: ModelDocument): Stepwise<RecipeOutcome> {
  return new ModelReading(scheme, recipe, model).read();
}

/** Relations that may not stand, told one by one. */
const MOST_NAMED = 500;

class ModelReading {
  private readonly drafts: Draft[] = [];
  private readonly links: DraftLink[] = [];
  private readonly issues: Issue[] = [];
  private readonly keyOf = new Map<string, number>();
  private readonly references = new Map<string, string>();
  private readonly elements: Map<string, ModelElement>;
  private readonly rules: Map<string, ElementRule>;
  private readonly relationRules: Map<string, RelationRule>;
  private readonly left = new Map<string, number>();
  private readonly homeless = new Map<string, number>();
  private refused = 0;
  private readonly flows: { relation: ModelRelation; kinds: readonly LinkKind[]; reversed: boolean }[] = [];

  constructor(
    private readonly scheme: Scheme,
    recipe: ModelRecipe,
    private readonly model: ModelDocument,
  ) {
    this.elements = new Map(model.elements.map((element) => [element.id, element]));
    this.rules = new Map(recipe.elements.map((rule) => [rule.sort, rule]));
    this.relationRules = new Map(recipe.relations.map((rule) => [rule.sort, rule]));
  }

  *read(): Stepwise<RecipeOutcome> {
    for (const element of this.model.elements) {
      this.addElement(element);
      yield;
    }
    this.addDrawings();
    for (const element of this.model.elements) {
      this.addType(element);
      yield;
    }
    for (const relation of this.model.relations) {
      this.addRelation(relation);
      yield;
    }
    this.addFlows();
    this.tell();
    return { drafts: this.drafts, links: this.links, issues: this.issues };
  }

  private addElement(element: ModelElement): void {
    const rule = this.rules.get(sortOf(element));
    if (rule?.becomes === 'detail') return this.addDetail(element);
    if (rule?.becomes !== 'items' || !rule.kind || !findKind(this.scheme, rule.kind)) {
      const label = labelOfSort(element);
      this.left.set(label, (this.left.get(label) ?? 0) + 1);
      return;
    }
    const draft: Draft = {
      key: this.drafts.length,
      parent: this.parentOf(element),
      role: hasRole(this.scheme, rule.kind, 'package') ? 'section' : 'item',
      kind: rule.kind,
      reference: null,
      externalId: element.id,
      title: fitTitle(element.name || this.nameless(element)),
      html: paragraphs(element.text),
      fields: {},
      place: this.placeOf(element),
    };
    const declared = element.role || element.type === 'Port' || element.type === 'Connector' ? sayElement(element, this.typeNameOf(element)) : '';
    if (declared && declared !== element.name) draft.details = [{ sort: 'declared as', text: declared, element: element.id }];
    if (element.table) draft.html += sayTable(element.table);
    this.keyOf.set(element.id, draft.key);
    this.drafts.push(draft);
    if (element.reference) this.giveReference(draft, element.reference);
    for (const { name, meaning } of rule.values) {
      const value = element.values[name];
      if (value) this.give(draft, name, meaning, value);
    }
  }

  /** The nearest owner that is an item: what lies between becomes none. */
  private parentOf(element: ModelElement): number {
    for (let at = element.parent; at !== null; at = this.elements.get(at)?.parent ?? null) {
      const key = this.keyOf.get(at);
      if (key !== undefined) return key;
    }
    return -1;
  }

  private addDetail(element: ModelElement): void {
    // Comments are the text of what they are about.
    if (element.type === 'Comment' || element.type === 'TextAnnotation') return;
    const owners = element.about?.length ? element.about : [element.parent];
    let placed = 0;
    for (const owner of owners) {
      const draft = owner === null ? undefined : this.drafts[this.keyOf.get(owner) ?? -1];
      if (!draft) continue;
      placed++;
      const text = sayElement(element, this.typeNameOf(element));
      if (text) (draft.details ??= []).push({ sort: headingOfDetail(element), text, element: element.id });
    }
    if (placed === 0) {
      const label = labelOfSort(element);
      this.homeless.set(label, (this.homeless.get(label) ?? 0) + 1);
    }
  }

  private typeNameOf({ typedBy, typeName }: ModelElement): string {
    return (typedBy === null ? undefined : this.elements.get(typedBy)?.name) ?? typeName ?? '';
  }

  private placeOf({ id, line, file }: ModelElement): SourcePlace {
    return { element: id, says: `${file ? `${file}, ` : ''}line ${line}` };
  }

  private nameless(element: ModelElement): string {
    const type = this.typeNameOf(element);
    if (type) return `: ${type}`;
    const kind = element.values.kind;
    return `Unnamed ${kind ? `${sayType(kind)} ` : ''}${sayType(element.type)}`;
  }

  private give(draft: Draft, name: string, meaning: Meaning, value: string): void {
    switch (meaning.as) {
      case 'reference':
        return this.giveReference(draft, value);
      case 'title':
        draft.title = fitTitle(value);
        return;
      case 'text':
        draft.html += paragraphs(value);
        return;
      case 'field': {
        const field = findKind(this.scheme, draft.kind)?.fields.find((one) => one.id === meaning.field);
        if (!field) return;
        const { value: read, problem } = readFieldValue(field, value);
        if (problem) this.issues.push({ severity: 'warning', code: 'field-value', at: draft.place.says, message: `${draft.title}, ${name}: ${problem}` });
        if (read !== null) draft.fields[field.id] = read as FieldValue;
        return;
      }
      default:
    }
  }

  private giveReference(draft: Draft, reference: string): void {
    const text = reference.trim().slice(0, 100);
    const twin = this.references.get(text.toLowerCase());
    if (!text) return;
    if (twin !== undefined) {
      this.issues.push({
        severity: 'warning',
        code: 'reference-twice',
        at: draft.place.says,
        message: `${text} is also the reference of "${twin}"; "${draft.title}" will get a new one`,
      });
      return;
    }
    this.references.set(text.toLowerCase(), draft.title);
    draft.reference = text;
  }

  private addDrawings(): void {
    const kind = findKindOfRole(this.scheme, 'drawing')?.id;
    if (kind === undefined) return;
    for (const { id, name, owner, line } of this.model.drawings) {
      const above = owner === null ? undefined : this.elements.get(owner);
      this.keyOf.set(id, this.drafts.length);
      this.drafts.push({
        ...{ key: this.drafts.length, parent: above ? (this.keyOf.get(above.id) ?? this.parentOf(above)) : -1, role: 'item', kind, reference: null },
        ...{ externalId: id, title: fitTitle(name || 'Unnamed drawing'), html: '', fields: {}, place: { element: id, says: `line ${line}` } },
      });
    }
  }

  /** A part is a use of what types it. */
  private addType(element: ModelElement): void {
    const own = this.drafts[this.keyOf.get(element.id) ?? -1];
    if (own && element.typeWaiting !== undefined) {
      const awaits = linkKindsOfRole(this.scheme, 'types').flatMap(({ id, fromKinds }) => (fromKinds.includes(own.kind) ? [id] : []));
      if (awaits.length > 0)
        this.links.push({ draft: own.key, linkKind: awaits[0]!, reversed: false, target: element.typeWaiting, by: 'source', awaits, place: own.place });
    }
    const type = element.typedBy === null ? undefined : this.drafts[this.keyOf.get(element.typedBy) ?? -1];
    if (!own || !type) return;
    const kind = linkKindsOfRole(this.scheme, 'types').find((one) => isAllowed(one, own.kind, type.kind));
    if (kind) this.links.push({ draft: own.key, linkKind: kind.id, reversed: false, target: element.typedBy!, place: own.place });
  }

  /** Each of the depending ends with each of the others. */
  private addRelation(relation: ModelRelation): void {
    const rule = this.relationRules.get(sortOf(relation));
    const kinds = (rule?.linkKinds ?? []).flatMap((id) => findLinkKind(this.scheme, id) ?? []);
    const label = labelOfSort(relation);
    if (!rule || kinds.length === 0) {
      this.left.set(label, (this.left.get(label) ?? 0) + 1);
      return;
    }
    if (kinds.some(({ role }) => role === 'leads')) return void this.flows.push({ relation, kinds, reversed: rule.reversed });
    const waiting = (end: 'from' | 'to') => (relation.waiting ?? []).flatMap((one) => (one.end === end ? [one.target] : []));
    let made = 0;
    for (const from of relation.from)
      for (const to of relation.to) made += Number(rule.reversed ? this.join(relation, kinds, to, from) : this.join(relation, kinds, from, to));
    // The other end lies in a file that was not handed in: it is looked for in the project.
    const place = { element: relation.id, says: placeSays(relation) };
    for (const [own, others, isFrom] of [
      [relation.from, waiting('to'), true],
      [relation.to, waiting('from'), false],
    ] as const)
      for (const id of own)
        for (const target of others) {
          const key = this.keyOf.get(id);
          if (key !== undefined) {
            this.links.push({
              draft: key,
              linkKind: kinds[0]!.id,
              reversed: isFrom === rule.reversed,
              target,
              by: 'source',
              awaits: kinds.map((kind) => kind.id),
              place,
            });
            made++;
          }
        }
    if (made === 0) this.left.set(label, (this.left.get(label) ?? 0) + 1);
  }

  /** What leads from one to the next: gateways, decisions, forks and other nodes that become no items are passed through. */
  private addFlows(): void {
    const outOf = new Map<string, string[]>();
    for (const { relation, reversed } of this.flows) {
      const [from, to] = reversed ? [relation.to, relation.from] : [relation.from, relation.to];
      for (const one of from) outOf.set(one, [...(outOf.get(one) ?? []), ...to]);
    }
    for (const { relation, kinds, reversed } of this.flows) {
      const [from, to] = reversed ? [relation.to, relation.from] : [relation.from, relation.to];
      for (const one of from) {
        if (!this.keyOf.has(one)) continue;
        const seen = new Set<string>();
        const open = [...to];
        for (let next = open.pop(); next !== undefined; next = open.pop()) {
          if (seen.has(next)) continue;
          seen.add(next);
          if (this.keyOf.has(next)) this.join(relation, kinds, one, next);
          else open.push(...(outOf.get(next) ?? []));
        }
      }
    }
  }

  private join(relation: ModelRelation, kinds: readonly LinkKind[], from: string, to: string): boolean {
    const [own, other] = [this.drafts[this.keyOf.get(from) ?? -1], this.drafts[this.keyOf.get(to) ?? -1]];
    if (!own || !other || own === other) return false;
    const [ownUse, otherUse] = relation.from.includes(from) ? [relation.fromUse, relation.toUse] : [relation.toUse, relation.fromUse];
    const kind = kinds.find((one) => isAllowed(one, own.kind, other.kind));
    const place = { element: relation.id, says: placeSays(relation) };
    if (kind) {
      this.links.push({
        ...{ draft: own.key, linkKind: kind.id, reversed: false, target: to, place, sort: sortOf(relation) },
        ...(ownUse && { ownUse: expandUse(this.elements, ownUse, from) }),
        ...(otherUse && { otherUse: expandUse(this.elements, otherUse, to) }),
      });
      return true;
    }
    if (++this.refused <= MOST_NAMED)
      this.issues.push({
        severity: 'warning',
        code: 'relation-not-allowed',
        at: place.says,
        message: `"${own.title}" ${kinds[0]!.phrase} "${other.title}" is not allowed between ${labelOf(this.scheme, own.kind)} and ${labelOf(this.scheme, other.kind)}; no link was made (${relation.id})`,
      });
    return true;
  }

  private tell(): void {
    const { left, homeless, issues } = this;
    if (this.refused > MOST_NAMED)
      issues.push({
        severity: 'warning',
        code: 'relation-not-allowed',
        at: 'relations',
        message: `${figure(this.refused - MOST_NAMED)} more relations are not allowed between their kinds; no links were made`,
      });
    for (const [what, count] of homeless)
      issues.push({
        severity: 'note',
        code: 'detail-homeless',
        at: what,
        message: `${count} × ${what} would be details of their owners, but those become no items; they stay in the file`,
      });
    for (const [what, count] of left)
      issues.push({ severity: 'note', code: 'element-left-out', at: what, message: `${count} × ${what} ${count === 1 ? 'stays' : 'stay'} in the file only` });
    if (this.drafts.length === 0)
      issues.push({
        severity: 'error',
        code: 'no-items',
        at: 'the whole file',
        message: this.model.elements.length
          ? `Nothing becomes an item: of ${counted(this.model.elements.length, 'element')}, every sort is set to stay in the file. Choose on the left what becomes items of which kind.`
          : 'The file holds no elements that Coomb knows. What it holds is listed above; if the model refers to other files, hand them in together.',
      });
  }
}

/** Elements from a root down to an end of a relation: each property on the way, and what it is a use of. */
export function expandUse(elements: ReadonlyMap<string, ModelElement>, [context, ...properties]: readonly string[], end: string): string[] {
  const path = [context!];
  for (const id of properties) {
    if (id === end) continue;
    path.push(id);
    const type = elements.get(id)?.typedBy;
    if (type) path.push(type);
  }
  if (path.at(-1) !== end) path.push(end);
  return path;
}

const labelOf = (scheme: Scheme, kind: string) => (findKind(scheme, kind)?.label ?? kind).toLowerCase();
const placeSays = ({ line, file }: ModelRelation) => `${file ? `${file}, ` : ''}line ${line}`;

const paragraphs = (text: string): string =>
  text
    .split(/\n+/)
    .filter((line) => line.trim())
    .map((line) => `<p>${escapeHtml(line)}</p>`)
    .join('');

function sayTable([head, ...rows]: string[][]): string {
  const cells = (row: readonly string[], tag: string) => row.map((cell) => `<${tag}>${escapeHtml(cell)}</${tag}>`).join('');
  return `<table><tbody><tr>${cells(head ?? [], 'th')}</tr>${rows.map((row) => `<tr>${cells(row, 'td')}</tr>`).join('')}</tbody></table>`;
}
