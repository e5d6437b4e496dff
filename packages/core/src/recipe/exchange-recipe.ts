import { fieldTypeOf } from '../fields/field-types.js';
import { getUsualKind } from '../scheme/roles.js';
import type { FieldValue } from '../fields/field-value.js';
import { findKind, type Scheme } from '../scheme/scheme.js';
import type { ExchangeAttribute, ExchangeDocument, ExchangeNode, ExchangeObject } from '../source/exchange.js';
import type { SourcePlace } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import { finish, type Stepwise } from '../steps/stepwise.js';
import { counted, figure } from '../wording/counted.js';
import { buildTitle, fitTitle } from '../wording/title.js';
import { cut, escapeHtml } from './document-words.js';
import type { Meaning } from './document-recipe.js';
import { buildDraftLinks, type Draft, type DraftLink, type RecipeOutcome } from './draft.js';
import { readFieldValue } from '../fields/read-field.js';
import { KindNames } from './row-kind.js';

export type ExchangeMeaning = Meaning | { as: 'heading' };

/** A reusable mapping from the types and attributes of an exchange file to kinds and fields, and from its relations to links. */
export interface ExchangeRecipe {
  name: string;
  types: { type: string; name: string; kind: string | null; attributes: { id: string; name: string; meaning: ExchangeMeaning }[] }[];
  relations: { type: string; name: string; linkKind: string | null; reversed: boolean }[];
}

/** Reads an exchange file by a recipe: its outlines become the outline, objects keep their identifiers. */
export function applyExchangeRecipe(scheme: Scheme, recipe: ExchangeRecipe, document: ExchangeDocument): RecipeOutcome {
  return finish(readExchange(scheme, recipe, document));
}

/** As `applyExchangeRecipe`, object by object. */
export function readExchange(scheme: Scheme, recipe: ExchangeRecipe, document: ExchangeDocument): Stepwise<RecipeOutcome> {
  return new ExchangeReading(scheme, recipe, document).read();
}

/** Relations without any end, and places without an object, that are told one by one. */
const MOST_NAMED = 1000;

class ExchangeReading {
  private readonly drafts: Draft[] = [];
  private readonly issues: Issue[] = [];
  private readonly keyOf = new Map<string, number>();
  private readonly references = new Map<string, string>();
  private readonly objects: Map<string, ExchangeObject>;
  private readonly types: Map<string, ExchangeRecipe['types'][number]>;
  private readonly attributes: Map<string, ExchangeAttribute>;
  private readonly left = new Map<string, number>();
  private readonly leftTypes = new Map<string, number>();
  /** Objects that outlines show more than once, and how often they show what is not there. */
  private readonly shared = new Set<string>();
  private missing = 0;
  private readonly valueLinks: DraftLink[] = [];
  private readonly kinds: KindNames;

  constructor(
    private readonly scheme: Scheme,
    private readonly recipe: ExchangeRecipe,
    private readonly document: ExchangeDocument,
  ) {
    this.kinds = new KindNames(scheme);
    this.objects = new Map(document.objects.map((object) => [object.id, object]));
    this.types = new Map(recipe.types.map((type) => [type.type, type]));
    this.attributes = new Map(document.types.flatMap((type) => type.attributes.map((attribute) => [attribute.id, attribute] as const)));
  }

  *read(): Stepwise<RecipeOutcome> {
    const outlines = this.document.outlines.filter((outline) => outline.nodes.length > 0);
    for (const outline of outlines) {
      const top = outlines.length > 1 ? this.addOutline(outline.id, outline.name) : -1;
      yield* this.walk(outline.nodes, top);
    }
    if (this.missing > MOST_NAMED)
      this.issues.push({
        severity: 'warning',
        code: 'object-missing',
        at: 'outlines',
        message: `${figure(this.missing - MOST_NAMED)} more places of outlines show objects that are not in the file`,
      });
    const loose = this.document.objects.filter((object) => !this.keyOf.has(object.id) && this.types.get(object.type)?.kind);
    if (loose.length > 0 && outlines.length > 0)
      this.note('note', 'object-loose', loose[0]!, `${loose.length} objects stand in no outline of the file; they come at the end`);
    for (const object of loose) {
      this.add(object, -1);
      yield;
    }
    for (const [name, count] of this.leftTypes)
      this.issues.push({
        severity: 'note',
        code: 'type-left',
        at: name,
        message: `${counted(count, 'object')} of the type "${name}" become no items: the recipe leaves them out; they stay in the stored file`,
      });
    for (const [what, count] of this.left)
      this.issues.push({
        severity: 'note',
        code: 'attribute-left',
        at: what,
        message: `${what}: ${count} values go to no field; they stay in the stored file`,
      });
    return { drafts: this.drafts, links: this.readLinks(), issues: this.issues };
  }

  private addOutline(id: string, name: string): number {
    const [type] = this.recipe.types;
    const draft: Draft = {
      key: this.drafts.length,
      parent: -1,
      role: 'section',
      kind: type?.kind ?? getUsualKind(this.scheme).id,
      reference: null,
      externalId: id,
      title: name || 'Outline',
      html: '',
      fields: {},
      place: { element: id, says: `outline ${name}` },
    };
    this.drafts.push(draft);
    return draft.key;
  }

  /** Without recursion: outlines may be deep. */
  private *walk(nodes: readonly ExchangeNode[], top: number): Stepwise<void> {
    const stack = nodes.toReversed().map((node) => ({ node, parent: top }));
    for (let next = stack.pop(); next; next = stack.pop()) {
      const { node, parent } = next;
      const object = this.objects.get(node.object);
      let key = parent;
      if (!object) {
        if (++this.missing <= MOST_NAMED)
          this.issues.push({
            severity: 'warning',
            code: 'object-missing',
            at: node.object,
            message: `An outline shows the object ${node.object}, which is not in the file`,
          });
      } else if (this.keyOf.has(object.id)) {
        const known = this.keyOf.get(object.id)!;
        if (known >= 0 && !this.shared.has(object.id))
          this.note('note', 'object-shared', object, `${this.nameOf(object)} stands in more than one place; it is shown at the first`);
        this.shared.add(object.id);
        key = known >= 0 ? known : parent;
      } else key = this.add(object, parent);
      for (let i = node.children.length - 1; i >= 0; i--) stack.push({ node: node.children[i]!, parent: key });
      yield;
    }
  }

  /** Key of the new draft, or the parent's where the recipe leaves the type out: its children move up. */
  private add(object: ExchangeObject, parent: number): number {
    const type = this.types.get(object.type);
    if (!type?.kind || !findKind(this.scheme, type.kind)) {
      this.keyOf.set(object.id, -1);
      // One without a type of the file was told when it was read.
      if (type) this.leftTypes.set(type.name, (this.leftTypes.get(type.name) ?? 0) + 1);
      return parent;
    }
    const place: SourcePlace = { element: object.id, says: placeOf(object) };
    const draft: Draft = {
      key: this.drafts.length,
      parent,
      role: 'item',
      kind: type.kind,
      reference: null,
      externalId: object.id,
      title: '',
      html: '',
      fields: {},
      place,
    };
    this.keyOf.set(object.id, draft.key);
    this.drafts.push(draft);
    this.giveKind(draft, object, type);
    for (const { id, name, meaning } of type.attributes) {
      const value = object.values[id];
      if (value !== undefined && value.length > 0) this.give(draft, object, id, name, meaning, value);
    }
    draft.title ||= buildTitle(wordsOf(draft.html.slice(0, 2000))) || object.name || draft.reference || 'Untitled';
    return draft.key;
  }

  /** What an attribute says of the kind comes first: the fields are those of the kind. */
  private giveKind(draft: Draft, object: ExchangeObject, type: ExchangeRecipe['types'][number]): void {
    for (const { id, name, meaning } of type.attributes) {
      const value = meaning.as === 'kind' ? object.values[id] : undefined;
      if (value === undefined || value.length === 0) continue;
      const says = wordsOf([value].flat().join(', '));
      const is = this.kinds.find(says, draft.kind);
      if (is) Object.assign(draft, is);
      else this.note('warning', 'kind-unknown', object, `${name}: "${cut(says)}" is no kind of the project; the item stays a ${draft.kind}`);
    }
  }

  private give(draft: Draft, object: ExchangeObject, id: string, name: string, meaning: ExchangeMeaning, value: string | string[]): void {
    const isRich = this.attributes.get(id)?.type === 'rich';
    const plain = Array.isArray(value) ? value.join(', ') : isRich ? wordsOf(value) : value;
    const isShown = isRich && ['text', 'field'].includes(meaning.as) && /<img /.test(String(value));
    if (!plain.trim() && !isShown) return;
    switch (meaning.as) {
      case 'reference':
        return this.giveReference(draft, object, plain.trim());
      case 'title':
        draft.title = fitTitle(plain);
        return;
      case 'heading':
        draft.role = 'section';
        draft.title = fitTitle(plain);
        return;
      case 'text':
        draft.html += isRich && !Array.isArray(value) ? value : `<p>${escapeHtml(plain)}</p>`;
        return;
      case 'field': {
        const field = findKind(this.scheme, draft.kind)?.fields.find((one) => one.id === meaning.field);
        if (!field) return void this.left.set(name, (this.left.get(name) ?? 0) + 1);
        if (fieldTypeOf(field.type).rich) draft.fields[field.id] = isRich && !Array.isArray(value) ? value : `<p>${escapeHtml(plain)}</p>`;
        else if (fieldTypeOf(field.type).json === 'array' && Array.isArray(value)) draft.fields[field.id] = value;
        else {
          const read = readFieldValue(field, plain);
          if (read.problem) this.note('warning', 'field-value', object, `${name}: ${read.problem}`);
          if (read.value !== null) draft.fields[field.id] = read.value as FieldValue;
        }
        return;
      }
      case 'link':
        this.valueLinks.push(...buildDraftLinks(draft.key, meaning, plain, draft.place));
        return;
      case 'kind':
        return;
      default:
        this.left.set(name, (this.left.get(name) ?? 0) + 1);
    }
  }

  private giveReference(draft: Draft, object: ExchangeObject, reference: string): void {
    const twin = this.references.get(reference.toLowerCase());
    if (twin !== undefined)
      return this.note('warning', 'reference-twice', object, `${reference} is also the reference of object ${twin}; this one will get a new one`);
    this.references.set(reference.toLowerCase(), object.id);
    draft.reference = reference.slice(0, 100);
  }

  private readLinks(): DraftLink[] {
    const kinds = new Map(this.recipe.relations.map((relation) => [relation.type, relation]));
    const unsaid = new Map<string, number>();
    let dangling = 0;
    const links: DraftLink[] = [...this.valueLinks];
    for (const relation of this.document.relations) {
      const kind = kinds.get(relation.type);
      const [from, to] = [this.keyOf.get(relation.from), this.keyOf.get(relation.to)];
      if (!kind?.linkKind) {
        unsaid.set(kind?.name ?? relation.type, (unsaid.get(kind?.name ?? relation.type) ?? 0) + 1);
        continue;
      }
      const isKnown = (key: number | undefined): key is number => key !== undefined && key >= 0;
      const place: SourcePlace = { element: relation.id, says: `relation ${relation.id}` };
      if (!isKnown(from) && !isKnown(to)) {
        if (++dangling > MOST_NAMED) continue;
        this.issues.push({
          severity: 'warning',
          code: 'relation-dangling',
          at: relation.id,
          message: `The relation leads from ${relation.from} to ${relation.to}, which are both ${from === undefined ? 'not in the file' : 'left out'}; no link was made`,
        });
        continue;
      }
      const [own, other] = isKnown(from) ? [from, relation.to] : [to!, relation.from];
      if (!this.objects.has(other))
        this.issues.push({
          severity: 'note',
          code: 'relation-outside',
          at: relation.id,
          message: `The other end of the relation, ${other}, is not in the file; it is looked for in the project`,
        });
      const [ownUse, otherUse] = own === from ? [relation.fromUse, relation.toUse] : [relation.toUse, relation.fromUse];
      const target = (otherUse ?? other) + (ownUse ? `(${ownUse})` : '');
      links.push({ draft: own, linkKind: kind.linkKind, reversed: own === from ? kind.reversed : !kind.reversed, target, place });
    }
    if (dangling > MOST_NAMED)
      this.issues.push({
        severity: 'warning',
        code: 'relation-dangling',
        at: 'relations',
        message: `${figure(dangling - MOST_NAMED)} more relations lead from and to what is not in the file; no links were made`,
      });
    for (const [name, count] of unsaid)
      this.issues.push({
        severity: 'warning',
        code: 'relation-unsaid',
        at: name,
        message: `${count} relations "${name}" make no link: the recipe does not say which kind they are`,
      });
    return links;
  }

  private nameOf(object: ExchangeObject): string {
    return this.drafts[this.keyOf.get(object.id) ?? -1]?.reference ?? object.id;
  }

  private note(severity: Issue['severity'], code: string, object: ExchangeObject, message: string): void {
    // Such files are often one line: the identifier says which object it is.
    const named = message.includes(object.id) ? message : `${message} (object ${object.id})`;
    this.issues.push({ severity, code, at: placeOf(object), message: named });
  }
}

function placeOf({ part, line }: ExchangeObject): string {
  return `${part === undefined ? '' : `${part}, `}line ${line}`;
}

function wordsOf(html: string): string {
  return html
    .replace(/<\/(p|li|tr|div)>|<br\s*\/?>/g, ' ')
    .replace(/<[^>]*>/g, '')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&amp;/g, '&')
    .replace(/\s+/g, ' ')
    .trim();
}
