import { newRecord, tableOf, type ElementRole, type Issue, type ModelDocument, type ModelElement, type ModelRelation } from '@coomb/core';
import { buildDrawings, isDiagram } from './build-drawings.js';
import { fillRelation, sayTriggers } from './fill-relations.js';
import { isElement, JOINING, RELATIONS, SILENT } from './metamodel.js';
import { ModelIssues } from '../xml/model-issues.js';
import { first, isValue, ownedBy, sayMultiplicity, sayOwned, saySignature, sayValue, sayBehaviour } from './say-value.js';
import { applyStereotypes, isApplication } from './stereotypes.js';
import type { ModelUnderWay } from './under-way.js';
import { References, type Target, type XmiFile } from './xmi-file.js';
import { allOf, type XmiObject } from './xmi-objects.js';

/** Files of one model, as UML 2.x with any profiles, as elements, relations and drawings. What is unknown is counted and named, never an error. */
export function buildUmlModel(files: readonly XmiFile[]): { model: ModelDocument; issues: Issue[] } {
  return new UmlBuilder(files).build();
}

/** Properties of an object that name what it is an occurrence of, by its class; `type` for the rest. */
const TYPED_BY = tableOf<string>({
  CallBehaviorAction: 'behavior',
  CallOperationAction: 'operation',
  SendSignalAction: 'signal',
  BroadcastSignalAction: 'signal',
  InstanceSpecification: 'classifier',
  Lifeline: 'represents',
  InteractionUse: 'refersTo',
  ActivityPartition: 'represents',
  State: 'submachine',
  Reception: 'signal',
  CollaborationUse: 'type',
});

/** Texts and flags that are told of any element that has them, and the word they are told by. */
const TOLD = tableOf<string | undefined>({
  visibility: 'visibility',
  isAbstract: 'abstract',
  isDerived: 'derived',
  isReadOnly: 'read only',
  isStatic: 'static',
  isConjugated: 'conjugated',
  isBehavior: 'behaviour',
  aggregation: 'aggregation',
  direction: 'direction',
  kind: 'kind',
  interactionOperator: 'operator',
  messageSort: 'sort',
  language: 'language',
  isControl: 'control',
  isOrdered: 'ordered',
  isUnique: 'unique',
});
/** What a file says although it goes without saying. */
const USUAL = tableOf<string>({ visibility: 'public', aggregation: 'none', abstract: 'false', derived: 'false', static: 'false', unique: 'true' });

const CONTAINERS = new Set(['Class', 'Component', 'Actor', 'Node', 'Device', 'ExecutionEnvironment', 'Collaboration', 'AssociationClass', 'Artifact']);
/** Behaviours that are no more than a text on their owner. */
const INLINE_TAGS = new Set(['entry', 'doActivity', 'exit', 'effect', 'guard', 'condition']);
const INLINE_TYPES = new Set(['OpaqueBehavior', 'FunctionBehavior', 'Constraint']);

const NOWHERE: Target[] = [];

export class UmlBuilder implements ModelUnderWay {
  readonly model: ModelDocument = {
    notation: 'uml',
    exporter: '',
    elements: [],
    relations: [],
    drawings: [],
    unknown: new Map(),
    missing: [],
  };
  readonly issues = new ModelIssues();
  /** Elements that a comment or a constraint is about. */
  private readonly about: { of: ModelElement; elements: ModelElement[] }[] = [];
  private readonly references: References;
  private readonly missing = new Map<string, number>();
  private readonly ids = new Map<string, number>();
  private withoutId = 0;

  constructor(private readonly files: readonly XmiFile[]) {
    this.references = new References(files);
  }

  build(): { model: ModelDocument; issues: Issue[] } {
    const { model } = this;
    const diagrams: { object: XmiObject; file: XmiFile }[] = [];
    const applications: { object: XmiObject; file: XmiFile }[] = [];
    for (const file of this.files) {
      model.exporter ||= file.content.exporter;
      this.tellTwins(file);
      for (const object of file.content.objects) {
        if (isDiagram(object)) diagrams.push({ object, file });
        else if (isApplication(object)) applications.push({ object, file });
        else if (object.space !== 'di' && object.space !== 'profile') this.addObject(object, file);
        else if (object.space === 'profile' && !object.owner) this.count(`${object.type} of a profile`);
      }
    }
    for (const file of this.files) for (const object of file.content.objects) this.fill(object, file);
    applyStereotypes(this, applications);
    this.placeTexts();
    for (const { object, file } of diagrams) model.drawings.push(...buildDrawings(this, object, file));
    this.settleRelations();
    this.tell();
    return { model, issues: this.issues.finish() };
  }

  private addObject(object: XmiObject, file: XmiFile): void {
    const { type } = object;
    const { name } = file;
    if (RELATIONS[type] || JOINING.has(type)) {
      if (type === 'Extension') return;
      const relation: ModelRelation = {
        id: this.giveId(object, file),
        type,
        stereotypes: [],
        from: [],
        to: [],
        name: first(object, 'name'),
        values: newRecord(),
        line: object.line,
      };
      if (name) relation.file = name;
      object.relation = relation;
      this.model.relations.push(relation);
      if (type !== 'AssociationClass') return;
    } else if (!isElement(type)) {
      if (!isValue(object) && !SILENT.has(type)) this.count(type);
      return;
    }
    if (isFolded(object)) return;
    if (!object.hasId) this.withoutId++;
    const element: ModelElement = {
      id: type === 'AssociationClass' ? object.relation!.id : this.giveId(object, file),
      type,
      stereotypes: [],
      name: first(object, 'name'),
      parent: this.ownerOf(object)?.id ?? null,
      typedBy: null,
      text: '',
      reference: null,
      values: newRecord(),
      line: object.line,
    };
    if (name) element.file = name;
    object.element = element;
    this.model.elements.push(element);
  }

  /** The file's own identifier; with the file's name, or a number, where another object of the model has it. */
  private giveId(object: XmiObject, file: XmiFile): string {
    const isTwin = file.twins.has(object);
    if (this.files.length === 1 && !isTwin) return object.id;
    const count = this.ids.get(object.id) ?? (isTwin ? 1 : 0);
    this.ids.set(object.id, count + 1);
    if (count === 0) return object.id;
    const placed = isTwin ? `${object.id}~${count + 1}` : `${file.name}#${object.id}`;
    this.ids.set(placed, 1);
    return placed;
  }

  private tellTwins(file: XmiFile): void {
    for (const twin of file.twins)
      if (!isValue(twin))
        this.issues.add(
          'warning',
          'id-twice',
          this.at(twin, file),
          `The id ${twin.id} is used twice; what refers to it is taken to mean the first. The second, ${this.describe(twin)}, is kept as ${twin.id}~2`,
        );
  }

  describe(object: XmiObject): string {
    const name = first(object, 'name');
    return `a ${object.type}${name ? ` "${name.slice(0, 80)}"` : ''}`;
  }

  at(object: XmiObject, file: XmiFile): string {
    return `${file.name ? `${file.name}, ` : ''}line ${object.line}`;
  }

  ownerOf(object: XmiObject): ModelElement | undefined {
    for (let at = object.owner; at; at = at.owner) {
      const element = at.element;
      if (element) return element;
    }
    return undefined;
  }

  /** What a property of an object refers to, one by one. */
  refer(object: XmiObject, property: string, file: XmiFile): Target[] {
    const texts = object.properties[property];
    if (texts === undefined) return NOWHERE;
    if (typeof texts === 'string') {
      const own = file.byId.get(texts);
      return own ? [{ object: own, file }] : this.referAll(texts, file);
    }
    return texts.flatMap((text) => this.referAll(text, file));
  }

  /** Several identifiers may stand in one text, parted by blanks, with the type of each before it. */
  private referAll(text: string, file: XmiFile): Target[] {
    const trimmed = text.trim();
    if (!trimmed) return NOWHERE;
    const whole = this.references.follow(file, trimmed);
    if (!('dangling' in whole) || !/\s/.test(trimmed)) return [whole];
    const parts = trimmed.split(/\s+/);
    return parts.filter((part, index) => !(/^[\w-]+:\w+$/.test(part) && parts[index + 1]?.includes('#'))).map((part) => this.references.follow(file, part));
  }

  private fill(object: XmiObject, file: XmiFile): void {
    const relation = object.relation;
    if (relation) fillRelation(this, object, relation, file);
    const element = object.element;
    if (element) this.fillElement(object, element, file);
  }

  /** Name of what a reference leads to. */
  nameOf(file: XmiFile): (reference: string) => string {
    return (reference) => {
      if (!reference) return '';
      const target = this.references.follow(file, reference.trim());
      if ('known' in target) return target.known;
      if (!('object' in target)) return '';
      const { object } = target;
      return isValue(object) ? sayValue(object, this.nameOf(file)) : first(object, 'name') || object.element?.name || '';
    };
  }

  typeOf(object: XmiObject, file: XmiFile): string {
    return this.nameOf(file)(first(object, 'type'));
  }

  private fillElement(object: XmiObject, element: ModelElement, file: XmiFile): void {
    const { values } = element;
    const nameOf = this.nameOf(file);
    const [typed] = this.refer(object, TYPED_BY[object.type] ?? 'type', file);
    if (typed && 'object' in typed) {
      element.typedBy = typed.object.element?.id ?? null;
      if (!element.typedBy) element.typeName = first(typed.object, 'name');
    } else if (typed && 'known' in typed) element.typeName = typed.known;
    else if (typed && 'missing' in typed) {
      element.typeName = typed.at;
      element.typeWaiting = typed.at;
      this.miss(typed.missing);
    }
    for (const property in object.properties) {
      const word = TOLD[property];
      if (word === undefined) continue;
      const value = first(object, property);
      if (value && value !== USUAL[word]) values[word] = value;
    }
    if (object.type === 'Property') element.role = roleOf(object, typed);
    this.fillTexts(object, element, file, nameOf);
  }

  private fillTexts(object: XmiObject, element: ModelElement, file: XmiFile, nameOf: (reference: string) => string): void {
    const { values } = element;
    const tell = (word: string, text: string) => {
      if (text) values[word] = text;
    };
    tell('multiplicity', sayMultiplicity(object, nameOf));
    tell('default', sayOwned(object, 'defaultValue', nameOf) || first(object, 'default'));
    switch (object.type) {
      case 'Operation':
        tell(
          'signature',
          saySignature(object, (one) => this.typeOf(one, file), nameOf),
        );
        break;
      case 'Comment':
        element.text = allOf(object, 'body').join('\n').trim();
        this.tellAbout(object, element, 'annotatedElement', file);
        break;
      case 'Constraint':
      case 'DurationConstraint':
      case 'TimeConstraint':
      case 'IntervalConstraint':
      case 'InteractionConstraint':
        element.text = sayOwned(object, 'specification', nameOf);
        this.tellAbout(object, element, 'constrainedElement', file);
        break;
      case 'State':
        for (const [tag, word] of [
          ['entry', 'entry'],
          ['doActivity', 'do'],
          ['exit', 'exit'],
        ] as const)
          tell(word, sayBehaviour(object, tag, nameOf));
        break;
      case 'OpaqueAction':
      case 'OpaqueBehavior':
        element.text = allOf(object, 'body').join('\n').trim();
        break;
      case 'Pseudostate':
        values.kind ??= 'initial';
        break;
      case 'CombinedFragment':
        values.operator ??= 'seq';
        break;
      case 'InteractionOperand':
        tell('guard', sayOwned(object, 'guard', nameOf));
        break;
      case 'AcceptEventAction':
      case 'AcceptCallAction':
        tell('trigger', sayTriggers(this, object, file));
        break;
      case 'InstanceSpecification':
        for (const slot of ownedBy(object, 'slot')) tell(nameOf(first(slot, 'definingFeature')) || 'slot', sayAll(slot, 'value', nameOf));
        break;
      default:
    }
  }

  private tellAbout(object: XmiObject, element: ModelElement, property: string, file: XmiFile): void {
    const elements = this.refer(object, property, file).flatMap((target) => ('object' in target ? (target.object.element ?? []) : []));
    const owner = this.ownerOf(object);
    if (elements.length === 0 && element.type === 'Comment' && owner) elements.push(owner);
    element.about = elements.map(({ id }) => id);
    this.about.push({ of: element, elements });
  }

  namesOf(object: XmiObject, property: string, file: XmiFile): string {
    return this.refer(object, property, file)
      .map((target) => ('object' in target ? first(target.object, 'name') : 'known' in target ? target.known : ''))
      .filter(Boolean)
      .join(', ');
  }

  miss(part: string): void {
    this.missing.set(part, (this.missing.get(part) ?? 0) + 1);
  }

  count(what: string): void {
    this.model.unknown.set(what, (this.model.unknown.get(what) ?? 0) + 1);
  }

  /** Comments are the text of what they are about; those that say nothing of it are their owner's. */
  private placeTexts(): void {
    for (const { of, elements } of this.about)
      if (of.type === 'Comment' && of.text) for (const one of elements) one.text = one.text ? `${one.text}\n${of.text}` : of.text;
  }

  private settleRelations(): void {
    this.model.relations = this.model.relations.filter((relation) => {
      const has = (end: 'from' | 'to') => relation[end].length > 0 || relation.waiting?.some((one) => one.end === end);
      return has('from') && has('to');
    });
  }

  private tell(): void {
    const { model, issues } = this;
    if (this.withoutId > 0)
      issues.add(
        'note',
        'element-without-id',
        'the whole file',
        `${this.withoutId} elements have no identifier; they are known by their place in the file, so that importing a newer version tells them by name`,
      );
    for (const [part, count] of this.missing) {
      model.missing.push({ part, count });
      issues.add(
        'warning',
        'part-missing',
        part,
        `The model refers ${count} times to ${part}, which was not handed in. Hand in both together (as an archive), or that file later: what leads there waits for it`,
      );
    }
    for (const file of this.files)
      for (const [what, count] of file.content.extensions)
        issues.add('note', 'content-unknown', file.name || 'the whole file', `${count} × ${what} is not read; it stays in the stored file and goes out again`);
    for (const [what, count] of model.unknown)
      issues.add('note', 'content-unknown', what, `${count} × ${what} has no place in Coomb yet; it stays in the stored file and goes out again`);
  }
}

/** Elements that are told as a text of their owner, and ends that are their association's. */
function isFolded(object: XmiObject): boolean {
  const { type, tag, owner } = object;
  if (INLINE_TYPES.has(type) && INLINE_TAGS.has(tag)) return true;
  if (type === 'Parameter') return owner?.type === 'Operation' || owner?.type === 'Reception';
  if (type === 'Property') return tag === 'ownedEnd' || owner?.type === 'Stereotype';
  return isValue(object);
}

function roleOf(property: XmiObject, type: Target | undefined): ElementRole {
  if (property.owner && JOINING.has(property.owner.type) && property.tag === 'ownedEnd') return 'end';
  const isComposite = first(property, 'aggregation') === 'composite';
  // What its type is stands in a file that was not handed in: what is owned by value there may be a part, so it is kept as one.
  if (type && 'missing' in type) return isComposite ? 'part' : 'value';
  const isWhole = type !== undefined && 'object' in type && CONTAINERS.has(type.object.type);
  if (!isWhole) return 'value';
  return isComposite ? 'part' : 'reference';
}

function sayAll(object: XmiObject, tag: string, nameOf: (reference: string) => string): string {
  const owned = ownedBy(object, tag).map((one) => sayValue(one, nameOf));
  return [...owned, ...allOf(object, tag)].filter(Boolean).join(', ');
}
