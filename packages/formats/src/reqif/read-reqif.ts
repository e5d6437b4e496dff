import {
  newRecord,
  tableOf,
  type ExchangeAttribute,
  type ExchangeDocument,
  type ExchangeNode,
  type ExchangeObject,
  type ExchangeRelation,
  type ExchangeType,
  type Issue,
} from '@coomb/core';
import { ReadError } from '../read-error.js';
import { localName, walkXml } from '../xml/walk-xml.js';
import { useNames } from './use-names.js';
import { XhtmlReader } from './xhtml-reader.js';

type AttributeType = ExchangeAttribute['type'];

const DATATYPES = tableOf<AttributeType>({
  'DATATYPE-DEFINITION-STRING': 'text',
  'DATATYPE-DEFINITION-XHTML': 'rich',
  'DATATYPE-DEFINITION-ENUMERATION': 'choice',
  'DATATYPE-DEFINITION-INTEGER': 'number',
  'DATATYPE-DEFINITION-REAL': 'number',
  'DATATYPE-DEFINITION-BOOLEAN': 'yesNo',
  'DATATYPE-DEFINITION-DATE': 'date',
});
const KIND_OF = tableOf<AttributeType>({
  STRING: 'text',
  XHTML: 'rich',
  ENUMERATION: 'choice',
  INTEGER: 'number',
  REAL: 'number',
  BOOLEAN: 'yesNo',
  DATE: 'date',
});

const VALUE = 'ATTRIBUTE-VALUE-';
/** Elements that have no place here, in words. */
const ASIDE = tableOf<string>({ 'RELATION-GROUP': 'relation groups', 'TOOL-EXTENSIONS': 'tool extensions' });
const ROLES = tableOf<string>({
  TITLE: 'words',
  'REQ-IF-TOOL-ID': 'words',
  'ENUM-VALUE': 'option',
  'SPEC-OBJECT-TYPE': 'type',
  'SPEC-RELATION-TYPE': 'relationType',
  'SPEC-OBJECT': 'object',
  SPECIFICATION: 'specification',
  'SPEC-HIERARCHY': 'node',
  'SPEC-RELATION': 'relation',
  'RELATION-GROUP': 'aside',
  'TOOL-EXTENSIONS': 'aside',
  'THE-VALUE': 'rich',
});

/** What an element is to the reader. A file of a million elements has some dozens of names: each is looked at once. */
const roleOf = remember((name: string): { local: string; role: string | undefined } => {
  const local = localName(name);
  if (local.endsWith('-REF')) return { local, role: 'words' };
  if (DATATYPES[local]) return { local, role: 'datatype' };
  if (local.startsWith('ATTRIBUTE-DEFINITION-')) return { local, role: 'attribute' };
  if (local.startsWith(VALUE)) return { local, role: 'value' };
  return { local, role: ROLES[local] };
});

/** Remembers what a name gave, up to a bound: a hostile file may bring a new name for each element. */
function remember<R>(look: (name: string) => R): (name: string) => R {
  const known = new Map<string, R>();
  return (name) => {
    let found = known.get(name);
    if (found === undefined) {
      found = look(name);
      if (known.size < 1000) known.set(name, found);
    }
    return found;
  };
}

/**
 * Reads ReqIF 1.2 (OMG formal/16-07-01), any namespace prefix, as a stream of elements. What Coomb has no place for (relation groups,
 * tool extensions, access rights) is counted and named; it stays in the stored file, from which `rewriteReqif` takes it again.
 * Throws ReadError when the file is something else.
 */
export async function readReqif(chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>): Promise<{ document: ExchangeDocument; issues: Issue[] }> {
  const reader = new ReqifReader();
  await walkXml(chunks, { open: (...event) => reader.open(...event), close: (name) => reader.close(name), text: (part) => reader.readText(part) });
  return reader.finish();
}

/** Of objects, of relations, and of places in outlines. */
const MOST = 500_000;
/** Objects without a usable type that are told one by one. */
const MOST_TOLD = 100;

interface Pending {
  id: string;
  name: string;
  line: number;
}

class ReqifReader {
  private readonly types: ExchangeType[] = [];
  private readonly relationTypes = new Map<string, { id: string; name: string; count: number }>();
  private readonly objects: ExchangeObject[] = [];
  private readonly outlines: ExchangeDocument['outlines'] = [];
  private readonly relations: ExchangeDocument['relations'] = [];
  private readonly options = new Map<string, string>();
  private readonly optionsOf = new Map<string, string[]>();
  private readonly attributeDatatype = new Map<string, string>();
  private readonly objectIds = new Set<string>();
  private readonly issues: Issue[] = [];
  private readonly kept = new Map<string, number>();
  private readonly path: string[] = [];
  private readonly nodes: { node: ExchangeNode; children: ExchangeNode[] }[] = [];
  private title = '';
  private tool = '';
  private text = '';
  private collecting = false;
  private datatype = '';
  private type: ExchangeType | undefined;
  private attribute: ExchangeAttribute | undefined;
  private object: ExchangeObject | undefined;
  private specification: (Pending & { nodes: ExchangeNode[] }) | undefined;
  private relation: ExchangeRelation | undefined;
  /** Attributes of relations that say in which use an end is linked. */
  private readonly uses = new Map<string, 'fromUse' | 'toUse'>();
  private value: { kind: AttributeType; definition: string; text: string | string[] } | undefined;
  /** Values that objects of a type have which say none, by attribute. */
  private readonly defaults = new Map<string, string | string[]>();
  private rich: XhtmlReader | undefined;
  private readonly embedded = new Map<string, string>();
  private root = '';
  private places = 0;

  private limit(what: string, count: number): void {
    if (count > MOST)
      throw new ReadError('exchange-too-large', `The file holds more than ${MOST.toLocaleString('en-GB')} ${what} and was refused. Have it sent in parts.`);
  }

  open(name: string, attributes: Record<string, string>, line: number): void {
    const { local, role } = roleOf(name);
    if (this.rich) return this.rich.open(local, attributes);
    this.path.push(local);
    this.root ||= local;
    if (role === undefined) return;
    const [id, longName] = [attributes.IDENTIFIER ?? '', attributes['LONG-NAME'] ?? ''];
    switch (role) {
      case 'datatype':
        this.datatype = id;
        break;
      case 'words':
        this.text = '';
        this.collecting = true;
        break;
      case 'option':
        this.options.set(id, longName || id);
        this.optionsOf.set(this.datatype, [...(this.optionsOf.get(this.datatype) ?? []), longName || id]);
        break;
      case 'type':
        this.type = { id, name: longName || id, attributes: [], count: 0 };
        break;
      case 'relationType':
        this.relationTypes.set(id, { id, name: longName || id, count: 0 });
        break;
      case 'attribute':
        this.openDefinition(local, id, longName, attributes);
        break;
      case 'object':
        this.object = { id, type: '', name: longName, values: newRecord(), line };
        break;
      case 'specification':
        this.specification = { id, name: longName, line, nodes: [] };
        break;
      case 'node':
        this.openNode();
        break;
      case 'relation':
        this.relation = { id, type: '', from: '', to: '' };
        break;
      case 'aside':
        this.count(ASIDE[local]!);
        break;
      case 'value':
        this.value = { kind: KIND_OF[local.slice(VALUE.length)] ?? 'text', definition: '', text: attributes['THE-VALUE'] ?? '' };
        break;
      case 'rich':
        if (this.value) this.rich = new XhtmlReader(this.embedded);
    }
  }

  close(name: string): void {
    const { local, role } = roleOf(name);
    if (this.rich) {
      if (this.rich.close(local)) return;
      if (this.value) this.value.text = this.rich.html();
      this.rich = undefined;
    }
    this.path.pop();
    if (this.collecting) return this.closeText(local);
    if (role === 'value') this.closeValue();
    else if (role === 'object') this.closeObject();
    else if (role === 'node') this.nodes.pop();
    else if (role === 'attribute') this.attribute = undefined;
    else if (role === 'type' && this.type) {
      this.types.push(this.type);
      this.type = undefined;
    } else if (role === 'specification' && this.specification) {
      const { id, name: title, nodes } = this.specification;
      this.outlines.push({ id, name: title, nodes });
      this.specification = undefined;
    } else if (role === 'relation' && this.relation) {
      this.relations.push(this.relation);
      this.limit('relations', this.relations.length);
      const type = this.relationTypes.get(this.relation.type);
      if (type) type.count++;
      this.relation = undefined;
    }
  }

  readText(part: string): void {
    if (this.rich) this.rich.text(part);
    else if (this.collecting) this.text += part;
  }

  finish(): { document: ExchangeDocument; issues: Issue[] } {
    if (this.root !== 'REQ-IF') throw new ReadError('not-reqif', `The file is XML, but starts with <${this.root}>, not with <REQ-IF>.`);
    for (const type of this.types)
      for (const attribute of type.attributes) {
        if (attribute.type !== 'choice' && attribute.type !== 'choices') continue;
        const datatype = this.attributeDatatype.get(attribute.id) ?? '';
        const options = this.optionsOf.get(datatype);
        Object.assign(attribute, { datatype, ...(options && { options }) });
      }
    this.settleValues();
    const count = new Map<string, number>();
    for (const object of this.objects) count.set(object.type, (count.get(object.type) ?? 0) + 1);
    for (const type of this.types) type.count = count.get(type.id) ?? 0;
    for (const [what, number] of this.kept)
      this.issues.push({
        severity: 'note',
        code: 'kept-aside',
        at: what,
        message: `${number} × ${what} have no place in Coomb; they stay in the stored file and go out again unchanged`,
      });
    return {
      document: {
        title: this.title,
        tool: this.tool,
        types: this.types,
        relationTypes: [...this.relationTypes.values()],
        objects: this.objects,
        outlines: this.outlines,
        relations: this.relations,
        pictures: new Map(),
        embedded: this.embedded,
      },
      issues: this.issues,
    };
  }

  /** What rests on definitions, which may stand behind the objects: labels of choices, and values that an object leaves to its type. */
  private settleValues(): void {
    const byType = new Map(this.types.map((type) => [type.id, type]));
    const unusable: ExchangeObject[] = [];
    const settle = (attribute: ExchangeAttribute, value: string | string[]) =>
      (attribute.type === 'choice' || attribute.type === 'choices') && Array.isArray(value) ? value.map((id) => this.options.get(id) ?? id) : value;
    for (const object of this.objects) {
      const type = byType.get(object.type);
      if (!type) {
        unusable.push(object);
        continue;
      }
      for (const attribute of type.attributes) {
        const value = object.values[attribute.id] ?? this.defaults.get(attribute.id);
        if (value !== undefined) object.values[attribute.id] = settle(attribute, value);
      }
    }
    for (const object of unusable.slice(0, MOST_TOLD))
      this.issues.push({
        severity: 'warning',
        code: 'object-typeless',
        at: `line ${object.line}`,
        message: `The object ${object.id} ${object.type ? `is of the type ${object.type}, which the file does not define` : 'names no type'}; it becomes no item, and stays in the stored file`,
      });
    if (unusable.length > MOST_TOLD)
      this.issues.push({
        severity: 'warning',
        code: 'object-typeless',
        at: 'objects',
        message: `${(unusable.length - MOST_TOLD).toLocaleString('en-GB')} more objects have no type that the file defines`,
      });
  }

  private openDefinition(local: string, id: string, name: string, attributes: Record<string, string>): void {
    const type = KIND_OF[local.slice('ATTRIBUTE-DEFINITION-'.length)];
    if (!this.type && name === useNames.from) this.uses.set(id, 'fromUse');
    if (!this.type && name === useNames.to) this.uses.set(id, 'toUse');
    if (!type || !this.type || !this.path.includes('SPEC-ATTRIBUTES')) return;
    if (local !== this.path.at(-1)) return;
    this.attribute = { id, name: name || id, type: type === 'choice' && attributes['MULTI-VALUED'] === 'true' ? 'choices' : type };
    this.type.attributes.push(this.attribute);
  }

  private openNode(): void {
    const node: ExchangeNode = { object: '', children: [] };
    const siblings = this.nodes.at(-1)?.children ?? this.specification?.nodes;
    siblings?.push(node);
    this.nodes.push({ node, children: node.children });
    this.limit('places in outlines', ++this.places);
  }

  private closeText(local: string): void {
    const text = this.text.trim();
    this.collecting = false;
    const parent = this.path.at(-1);
    if (local === 'TITLE') this.title ||= text;
    else if (local === 'REQ-IF-TOOL-ID') this.tool = text;
    else if (local === 'SPEC-OBJECT-TYPE-REF' && this.object) this.object.type = text;
    else if (local === 'SPEC-RELATION-TYPE-REF' && this.relation) this.relation.type = text;
    else if (local === 'SPEC-OBJECT-REF') this.closeObjectRef(parent, text);
    else if (local === 'ENUM-VALUE-REF' && this.value) {
      const list = Array.isArray(this.value.text) ? this.value.text : [];
      this.value.text = [...list, text];
    } else if (local.startsWith('ATTRIBUTE-DEFINITION-') && this.value) this.value.definition = text;
    else if (local.startsWith('DATATYPE-DEFINITION-') && this.attribute) this.attributeDatatype.set(this.attribute.id, text);
  }

  private closeObjectRef(parent: string | undefined, text: string): void {
    if (this.relation) {
      if (parent === 'SOURCE') this.relation.from = text;
      if (parent === 'TARGET') this.relation.to = text;
    } else if (this.nodes.length) this.nodes.at(-1)!.node.object = text;
  }

  private closeValue(): void {
    const { value, object } = this;
    this.value = undefined;
    if (!value) return;
    const { kind, definition, text } = value;
    const read = kind === 'yesNo' ? (text === 'true' || text === '1' ? 'yes' : 'no') : kind === 'date' && !Array.isArray(text) ? text.slice(0, 10) : text;
    if (this.attribute && this.path.includes('DEFAULT-VALUE')) this.defaults.set(this.attribute.id, read);
    else if (object && this.path.includes('SPEC-OBJECT')) object.values[definition] = read;
    else if (this.relation && this.uses.has(definition) && typeof read === 'string' && read) this.relation[this.uses.get(definition)!] = read;
  }

  private closeObject(): void {
    const { object } = this;
    this.object = undefined;
    if (!object) return;
    if (this.objectIds.has(object.id)) {
      this.issues.push({
        severity: 'error',
        code: 'identifier-twice',
        at: `line ${object.line}`,
        message: `The identifier ${object.id} is given to two objects; the second was left out`,
      });
      return;
    }
    this.objectIds.add(object.id);
    this.objects.push(object);
    this.limit('objects', this.objects.length);
  }

  private count(what: string): void {
    this.kept.set(what, (this.kept.get(what) ?? 0) + 1);
  }
}
