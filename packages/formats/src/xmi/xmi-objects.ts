import { newRecord, tableOf, type ModelElement, type ModelRelation } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { NameSpaces, prefixOf } from '../xml/name-spaces.js';
import { localName, type XmlVisitor } from '../xml/walk-xml.js';
import { DECLARED_TYPES } from './metamodel.js';

/** Whose words a namespace holds. */
export type Space = 'xmi' | 'uml' | 'di' | 'ecore' | 'profile' | 'none';

/** One object of an XMI file: its properties as texts, whether they were written as attributes or as elements. */
export interface XmiObject {
  /** `xmi:id`, else `xmi:uuid`, else the place in the tree. */
  id: string;
  uuid: string;
  /** Whether the file gives it an identifier. */
  hasId: boolean;
  type: string;
  space: Space;
  /** Property of the owner that holds it. */
  tag: string;
  owner: XmiObject | null;
  /** Values and references alike: the file does not tell one from the other when they are attributes. */
  properties: Record<string, string | string[]>;
  /** Properties that hold a structure without identity, such as bounds and waypoints. */
  structures: { tag: string; attributes: Record<string, string>; at: number }[] | undefined;
  /** Its number among the elements of the file, in the order in which they begin. */
  at: number;
  /** Numbers of the elements that hold its properties, for those that are written as elements; kept only where the file is to be written again. */
  propertyAt: Record<string, number[]> | undefined;
  /** Name of its element, with its prefix. */
  name: string;
  children: XmiObject[] | undefined;
  line: number;
  /** What it became: an element or a relation of the model, or both. */
  element: ModelElement | undefined;
  relation: ModelRelation | undefined;
}

/** All that a property says. */
export const allOf = ({ properties }: XmiObject, name: string): readonly string[] => {
  const value = properties[name];
  return value === undefined ? NOTHING : typeof value === 'string' ? [value] : value;
};
const NOTHING: readonly string[] = [];

const MOST_OBJECTS = 1_500_000;

const spaces = new Map<string, Space>();
/** Any version of any of the standards: their addresses have changed with each. */
function spaceOf(uri: string): Space {
  let space = spaces.get(uri);
  if (space === undefined) {
    space = !uri
      ? 'none'
      : /umldi|\/DD\/|\/DI\b|\/DC\b|diagram-?interchange/i.test(uri)
        ? 'di'
        : /\bXMI\b/i.test(uri) || /omg\.org\/XMI/i.test(uri)
          ? 'xmi'
          : /(?:^|[/.])uml2?(?:[/.]|$)/i.test(uri) && !/profile/i.test(uri)
            ? 'uml'
            : /emf\/2002\/Ecore/i.test(uri)
              ? 'ecore'
              : 'profile';
    if (spaces.size < 1000) spaces.set(uri, space);
  }
  return space;
}

/** What usual prefixes stand for in files that do not declare them rightly. */
const USUAL = tableOf<Space>({ xmi: 'xmi', uml: 'uml', umldi: 'di', di: 'di', dc: 'di', ecore: 'ecore' });

const XMI_TAGS = new Set(['XMI', 'Documentation', 'Extension', 'Difference', 'Add', 'Delete', 'Replace']);

interface Frame {
  tag: string;
  object: XmiObject | undefined;
  /** A reference is complete when it opens. */
  isReference: boolean;
  attributes: Record<string, string> | undefined;
  text: string;
  /** Number of the element. */
  at: number;
  hasChildren: boolean;
  /** How many of each property were met, for the places of objects without an identifier. */
  counts: Map<string, number> | undefined;
}

/**
 * Collects the objects of an XMI file (2.1 to 2.5.1, with or without its root element): properties written as attributes or elements,
 * references by id, uuid or address. Extensions of tools are passed over and counted.
 */
export class XmiObjects implements XmlVisitor {
  readonly objects: XmiObject[] = [];
  /** Outermost objects that are no part of the model: applications of stereotypes, and drawings that stand beside it. */
  readonly roots: XmiObject[] = [];
  readonly extensions = new Map<string, number>();
  exporter = '';
  root = '';
  /** Prefixes that the file has for XMI and UML. */
  readonly prefixes = { xmi: 'xmi', uml: 'uml' };
  /** Namespaces of its profiles, by prefix. */
  readonly profiles = new Map<string, string>();
  namespace = '';
  private readonly scope = new NameSpaces();
  private readonly frames: Frame[] = [];
  private skipping = 0;
  private rootIsXmi = false;
  private number = -1;
  /** Names of elements recur by the thousand: one string of each is kept. */
  private readonly names = new Map<string, string>();

  constructor(private readonly keepsPlaces = false) {}

  open(name: string, attributes: Record<string, string>, line: number): void {
    this.number++;
    if (this.skipping > 0) {
      this.skipping++;
      return;
    }
    this.scope.open(attributes);
    name = this.keepOne(name);
    const tag = localName(name);
    const prefix = prefixOf(name);
    const tagSpace = this.spaceOf(prefix);
    const parent = this.frames.at(-1);
    if (!parent) {
      this.root = tag;
      this.namespace = this.scope.find(prefix);
      this.rootIsXmi = tag === 'XMI' || tagSpace === 'xmi';
      this.learnPrefixes(attributes);
      if (this.rootIsXmi) return this.push({ tag, isReference: false });
    }
    if (parent?.tag === 'Documentation' && !parent.object) return this.push({ tag, isReference: false });
    // A file may have XMI as the namespace of all names without a prefix: properties are none of its elements for that.
    if (
      (tagSpace === 'xmi' && (prefix || XMI_TAGS.has(tag))) ||
      (tag === 'eAnnotations' && parent?.object?.space !== 'ecore') ||
      (tag === 'Extension' && !attributes['xmi:type'] && prefix)
    )
      return this.openXmi(tag, attributes);
    if (parent) parent.hasChildren = true;
    this.openObject(name, tag, tagSpace, attributes, line);
  }

  private keepOne(name: string): string {
    const known = this.names.get(name);
    if (known === undefined) this.names.set(name, name);
    return known ?? name;
  }

  private learnPrefixes(attributes: Record<string, string>): void {
    for (const key in attributes) {
      if (!key.startsWith('xmlns:')) continue;
      const space = spaceOf(attributes[key]!);
      if (space === 'xmi' || space === 'uml') this.prefixes[space] = key.slice(6);
      if (space === 'profile') this.profiles.set(key.slice(6), attributes[key]!);
    }
  }

  /** Elements of XMI itself: what the file says of its writer, and extensions, which stay in the file. */
  private openXmi(tag: string, attributes: Record<string, string>): void {
    if (tag === 'Documentation') {
      for (const key in attributes) if (localName(key) === 'exporter') this.exporter ||= attributes[key]!;
      return this.push({ tag: 'Documentation', isReference: false });
    }
    const by = attributes.extender ?? attributes['xmi:extender'] ?? attributes.source ?? '';
    const what = tag === 'Extension' ? `an extension${by ? ` by ${by}` : ''}` : tag === 'eAnnotations' ? 'annotations of a tool' : `xmi:${tag}`;
    this.extensions.set(what, (this.extensions.get(what) ?? 0) + 1);
    this.skipping = 1;
  }

  private openObject(name: string, tag: string, tagSpace: Space, attributes: Record<string, string>, line: number): void {
    const parent = this.frames.at(-1);
    const isOutermost = !parent || (this.rootIsXmi && this.frames.length === 1);
    let [id, uuid, typeName, reference] = ['', '', '', ''];
    let isNil = false;
    let properties: Record<string, string> | undefined;
    for (const key in attributes) {
      const value = attributes[key]!;
      const at = key.indexOf(':');
      if (at < 0) {
        if (key === 'href') reference = value;
        else if (key !== 'xmlns') (properties ??= newRecord())[key] = value;
        continue;
      }
      const local = key.slice(at + 1);
      const own = key.slice(0, at);
      if (own === 'xmlns' || own === 'xml') continue;
      const isXmi = own === 'xmi' || this.spaceOf(own) === 'xmi';
      if (isXmi && local === 'id') id = value;
      else if (isXmi && local === 'uuid') uuid = value;
      else if (isXmi && (local === 'idref' || local === 'uuidref')) reference = value;
      else if (local === 'type' && (isXmi || own === 'xsi' || /XMLSchema-instance/.test(this.scope.find(own)))) typeName = value;
      else if (local === 'nil') isNil = value === 'true' || value === '1';
      else if (local === 'href') reference = value;
      else if (!isXmi && own !== 'xsi') (properties ??= newRecord())[local] = value;
    }
    if (reference && parent?.object) {
      add(parent.object.properties, tag, reference);
      this.noteAt(parent.object, tag, this.number);
      return this.push({ tag, isReference: true });
    }
    const type = typeName ? localName(typeName) : isOutermost ? tag : (DECLARED_TYPES[tag] ?? (id ? tag : ''));
    if (!type || isNil) return this.push({ tag, isReference: isNil, attributes: properties });
    const object: XmiObject = {
      id: id || uuid || this.placeOf(parent, tag),
      uuid,
      hasId: Boolean(id || uuid),
      type,
      space: typeName ? this.spaceOf(prefixOf(typeName)) : isOutermost ? tagSpace : (parent?.object?.space ?? 'none'),
      tag,
      owner: parent?.object ?? null,
      properties: properties ?? newRecord(),
      structures: undefined,
      at: this.number,
      propertyAt: undefined,
      name,
      children: undefined,
      line,
      element: undefined,
      relation: undefined,
    };
    if (this.objects.push(object) > MOST_OBJECTS)
      throw new ReadError(
        'model-too-large',
        `Line ${line}: the model holds more than ${MOST_OBJECTS.toLocaleString('en-GB')} elements and was refused. Export it in parts.`,
      );
    if (isOutermost) this.roots.push(object);
    if (object.owner) {
      if (object.owner.children) object.owner.children.push(object);
      else object.owner.children = [object];
      parent!.counts?.set(tag, (parent!.counts.get(tag) ?? 0) + 1);
    }
    this.push({ tag, isReference: false, object });
  }

  close(): void {
    if (this.skipping > 0) {
      if (--this.skipping === 0) this.scope.close();
      return;
    }
    this.scope.close();
    const frame = this.frames.pop()!;
    const parent = this.frames.at(-1);
    if (frame.isReference || !parent) return;
    const text = frame.text.trim();
    if (parent.tag === 'Documentation' && !parent.object) {
      if (frame.tag === 'exporter' && text) this.exporter ||= text;
      return;
    }
    const { object } = frame;
    if (!parent.object) return;
    if (object) {
      // A property of a class of its own may hold a mere text, such as a guard.
      if (!text || frame.hasChildren || object.hasId || Object.keys(object.properties).length > 0 || this.objects.at(-1) !== object) return;
      this.objects.pop();
      parent.object.children?.pop();
      add(parent.object.properties, frame.tag, frame.text);
      this.noteAt(parent.object, frame.tag, frame.at);
    } else if (frame.attributes)
      (parent.object.structures ??= []).push({ tag: frame.tag, attributes: text ? { ...frame.attributes, '': text } : frame.attributes, at: frame.at });
    else if (!frame.hasChildren) {
      add(parent.object.properties, frame.tag, frame.text);
      this.noteAt(parent.object, frame.tag, frame.at);
    }
  }

  text(text: string): void {
    if (this.skipping > 0) return;
    const frame = this.frames.at(-1);
    if (frame && !frame.isReference) frame.text += text;
  }

  private push({ tag, isReference, object, attributes }: Pick<Frame, 'tag' | 'isReference'> & Partial<Frame>): void {
    this.frames.push({ tag, isReference, object, attributes, text: '', at: this.number, hasChildren: false, counts: undefined });
  }

  private noteAt(object: XmiObject, property: string, at: number): void {
    if (!this.keepsPlaces) return;
    const places = (object.propertyAt ??= newRecord());
    if (places[property]) places[property].push(at);
    else places[property] = [at];
  }

  private spaceOf(prefix: string): Space {
    const uri = this.scope.find(prefix);
    const space = spaceOf(uri);
    return (space === 'none' || space === 'profile') && USUAL[prefix] ? USUAL[prefix] : space;
  }

  /** The address of an object by its place, as files without identifiers refer to it: `//@packagedElement.0/@ownedAttribute.2`. */
  private placeOf(parent: Frame | undefined, tag: string): string {
    if (!parent) return '/';
    const owner = parent.object;
    if (!owner) return `/${this.roots.length}`;
    if (!parent.counts) {
      parent.counts = new Map();
      for (const child of owner.children ?? []) parent.counts.set(child.tag, (parent.counts.get(child.tag) ?? 0) + 1);
    }
    return `${owner.id}/@${tag}.${parent.counts.get(tag) ?? 0}`;
  }
}

function add(properties: Record<string, string | string[]>, name: string, value: string): void {
  const known = properties[name];
  if (known === undefined) properties[name] = value;
  else if (typeof known === 'string') properties[name] = [known, value];
  else known.push(value);
}
