import type { ExchangeRelation } from '@coomb/core';
import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { useNames } from './use-names.js';
import { mediaTypeOf } from '../rich-text/media-types.js';
import { writeFormula } from '../rich-text/write-formula.js';
import { localName } from '../xml/walk-xml.js';
import { openXmlFilter } from '../xml/xml-characters.js';
import { canEncode, encodeXml, findXmlEncoding, markOf, openXmlDecoder, type XmlEncoding } from '../xml/xml-encoding.js';

/** A value to write: choices by the labels of their options. */
export type ReqifValue = { kind: 'text' | 'number' | 'date' | 'yesNo'; text: string } | { kind: 'rich'; html: string } | { kind: 'choice'; labels: string[] };

export interface ReqifNode {
  object: string;
  children: ReqifNode[];
}

/** What became of the objects of a file since it was read. Everything else goes out as it came in. */
export interface ReqifEdits {
  /** New values by object, then attribute; null takes a value away. */
  values: ReadonlyMap<string, ReadonlyMap<string, ReqifValue | null>>;
  removed: ReadonlySet<string>;
  added: readonly { id: string; type: string; values: ReadonlyMap<string, ReqifValue> }[];
  /** New hierarchy of specifications whose order or nesting changed. */
  hierarchies: ReadonlyMap<string, readonly ReqifNode[]>;
  removedRelations: ReadonlySet<string>;
  addedRelations: readonly ExchangeRelation[];
  /** Labels that become options of an enumeration, by its datatype. */
  options: ReadonlyMap<string, readonly string[]>;
  /** Media types of pictures and other objects in rich text, by their names. */
  mediaTypes: ReadonlyMap<string, string>;
  /** Time that changed and added objects carry, ISO 8601. */
  now: string;
}

export const noEdits: ReqifEdits = {
  values: new Map(),
  removed: new Set(),
  added: [],
  hierarchies: new Map(),
  removedRelations: new Set(),
  addedRelations: [],
  options: new Map(),
  mediaTypes: new Map(),
  now: '',
};

const escapeText = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
const escapeAttribute = (text: string) => escapeText(text).replace(/"/g, '&quot;').replace(/\n/g, '&#10;').replace(/\t/g, '&#9;').replace(/\r/g, '&#13;');

/**
 * Writes a ReqIF file again with edits, element by element as it is read: what is not edited keeps its every element, prefix, comment
 * and extension. Memory is bounded by one object.
 */
export async function* rewriteReqif(
  chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>,
  edits: ReqifEdits,
  definitions: ReqifDefinitions = noDefinitions(),
): AsyncGenerator<Buffer> {
  let encoding: XmlEncoding | undefined;
  let decode: ((chunk?: Uint8Array) => string) | undefined;
  let writer: Rewriter | undefined;
  const filter = openXmlFilter();
  // A file in an encoding that cannot be written here goes out as UTF-8, and says so.
  const outgoing = () => (canEncode(encoding!.name) ? encoding!.name : 'utf-8');
  for await (const chunk of chunks) {
    if (!encoding) {
      encoding = findXmlEncoding(chunk);
      decode = openXmlDecoder(encoding);
      writer = new Rewriter(edits, definitions, canEncode(encoding.name) ? undefined : 'UTF-8');
      yield markOf({ ...encoding, name: outgoing() });
    }
    writer!.write(filter(decode!(chunk)));
    yield encodeXml(writer!.take(), outgoing());
  }
  if (!writer) return;
  writer.write(filter('', true));
  writer.end();
  yield encodeXml(writer.take(), outgoing());
}

/** What values are written by: options, datatypes and kinds of attributes. They may stand behind the objects that use them. */
export interface ReqifDefinitions {
  optionId: Map<string, string>;
  datatypeOf: Map<string, string>;
  kindOf: Map<string, string>;
}

const noDefinitions = (): ReqifDefinitions => ({ optionId: new Map(), datatypeOf: new Map(), kindOf: new Map() });

/** The definitions of a file, wherever in it they stand. */
export async function learnDefinitions(chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>): Promise<ReqifDefinitions> {
  const definitions = noDefinitions();
  for await (const _ of rewriteReqif(chunks, noEdits, definitions));
  return definitions;
}

interface Frame {
  local: string;
  /** Where in the output the element began; what is dropped is cut from here. */
  start: number;
  id: string;
  dropped: boolean;
}

class Rewriter {
  private out = '';
  private readonly stack: Frame[] = [];
  private readonly parser = new SaxesParser({ xmlns: false });
  /** Prefix of the file's own ReqIF elements, with its colon. */
  private prefix = '';
  private xhtml = 'xhtml:';
  private skipping = 0;
  private object: { id: string; hasValues: boolean } | undefined;
  private value: { definition: string; collecting: boolean } | undefined;
  private specification = '';
  /** Hierarchy elements of objects that stay, by object, to keep their identifiers. */
  private hierarchyId = 0;
  private datatype = '';
  private highestKey = 0;
  private attribute = '';
  private reference = '';
  private collecting = false;
  /** Attributes of relation types that say in which use an end is linked, by type and end. */
  private readonly usesOf = new Map<string, string>();
  private relationType = '';
  private written = { objects: false, relations: false, options: '' };

  private readonly optionId: Map<string, string>;
  private readonly datatypeOf: Map<string, string>;
  private readonly kindOf: Map<string, string>;

  /** `encoding` stands in the declaration instead of the file's own. */
  constructor(
    private readonly edits: ReqifEdits,
    { optionId, datatypeOf, kindOf }: ReqifDefinitions,
    encoding: string | undefined,
  ) {
    this.optionId = optionId;
    this.datatypeOf = datatypeOf;
    this.kindOf = kindOf;
    const { parser } = this;
    parser.on('xmldecl', (declaration) => {
      const named = encoding ?? declaration.encoding;
      const standalone = declaration.standalone ? ` standalone="${declaration.standalone}"` : '';
      this.out += `<?xml version="${declaration.version ?? '1.0'}"${named ? ` encoding="${named}"` : ''}${standalone}?>`;
    });
    parser.on('opentag', (tag) => this.open(tag));
    parser.on('closetag', (tag) => this.close(tag));
    parser.on('text', (text) => this.text(text, escapeText(text)));
    parser.on('cdata', (text) => this.text(text, `<![CDATA[${text}]]>`));
    parser.on('comment', (text) => this.put(`<!--${text}-->`));
    parser.on('processinginstruction', ({ target, body }) => this.put(`<?${target}${body ? ` ${body}` : ''}?>`));
    parser.on('error', (error) => {
      throw error;
    });
  }

  write(text: string): void {
    this.parser.write(text);
  }

  end(): void {
    this.parser.close();
  }

  /** What is finished so far. While an object is open its start must stay. */
  take(): string {
    if (this.stack.some((frame) => frame.local === 'SPEC-OBJECT' || frame.local === 'SPECIFICATION')) return '';
    const text = this.out;
    this.out = '';
    return text;
  }

  private put(text: string): void {
    if (this.skipping === 0) this.out += text;
  }

  private open(tag: SaxesTagPlain): void {
    const local = localName(tag.name);
    const id = tag.attributes.IDENTIFIER ?? '';
    if (this.stack.length === 0) this.learnPrefixes(tag);
    const frame: Frame = { local, start: this.out.length, id, dropped: this.isDropped(local, id) };
    this.stack.push(frame);
    if (frame.dropped) this.skipping++;
    this.learn(local, tag);
    if (local === 'SPEC-OBJECT') this.object = { id, hasValues: false };
    if (local === 'SPECIFICATION') this.specification = id;
    if (local === 'VALUES' && this.stack.at(-2)?.local === 'SPEC-OBJECT') this.object!.hasValues = true;
    if (local.startsWith('ATTRIBUTE-VALUE-') && this.object) this.value = { definition: '', collecting: false };
    const attributes = { ...tag.attributes };
    if (local === 'SPEC-OBJECT' && this.edits.values.has(id) && attributes['LAST-CHANGE']) attributes['LAST-CHANGE'] = this.edits.now;
    const text = Object.entries(attributes)
      .map(([name, value]) => ` ${name}="${escapeAttribute(value)}"`)
      .join('');
    this.put(`<${tag.name}${text}${tag.isSelfClosing ? '/' : ''}>`);
  }

  /** A hierarchy that is written anew loses its old children; removed objects and relations go whole. */
  private isDropped(local: string, id: string): boolean {
    if (local === 'SPEC-OBJECT') return this.edits.removed.has(id);
    if (local === 'SPEC-RELATION') return this.edits.removedRelations.has(id);
    return local === 'CHILDREN' && this.stack.at(-1)?.local === 'SPECIFICATION' && this.edits.hierarchies.has(this.specification);
  }

  private close(tag: SaxesTagPlain): void {
    const frame = this.stack.pop()!;
    const { local } = frame;
    if (this.collecting && local.endsWith('-REF')) this.closeReference(local);
    if (!tag.isSelfClosing) {
      if (local === 'VALUES' && this.object && this.stack.at(-1)?.local === 'SPEC-OBJECT') this.put(this.newValues());
      if (local === 'SPEC-OBJECT' && !this.object?.hasValues) this.put(this.wrap('VALUES', this.newValues()));
      if (local === 'SPECIFIED-VALUES') this.put(this.newOptions());
      if (local === 'DATATYPE-DEFINITION-ENUMERATION') this.put(this.wrap('SPECIFIED-VALUES', this.newOptions()));
      if (local === 'SPEC-OBJECTS') this.put(this.newObjects());
      if (local === 'SPEC-RELATIONS') this.put(this.newRelations());
      if (local === 'SPECIFICATION') this.put(this.newHierarchy());
      if (local === 'CORE-CONTENT' || local === 'REQ-IF-CONTENT') this.put(this.missingParts(local));
      this.put(`</${tag.name}>`);
    } else if (local === 'SPECIFIED-VALUES') this.expand(tag, this.newOptions());
    else if (local === 'DATATYPE-DEFINITION-ENUMERATION') this.expand(tag, this.wrap('SPECIFIED-VALUES', this.newOptions()));
    else if (local === 'SPEC-OBJECTS') this.expand(tag, this.newObjects());
    else if (local === 'SPEC-RELATIONS') this.expand(tag, this.newRelations());
    if (frame.dropped) this.skipping--;
    if (local.startsWith('ATTRIBUTE-VALUE-') && this.value) {
      if (this.object && this.edits.values.get(this.object.id)?.has(this.value.definition)) this.out = this.out.slice(0, frame.start);
      this.value = undefined;
    }
    if (local === 'SPEC-OBJECT') this.object = undefined;
    if (local === 'SPECIFICATION') this.specification = '';
  }

  private text(text: string, written: string): void {
    if (this.collecting) this.reference += text;
    this.put(written);
  }

  private expand(tag: SaxesTagPlain, content: string): void {
    if (!content) return;
    this.out = `${this.out.slice(0, -2)}>${content}</${tag.name}>`;
  }

  private learnPrefixes(tag: SaxesTagPlain): void {
    this.prefix = tag.name.includes(':') ? tag.name.slice(0, tag.name.indexOf(':') + 1) : '';
    for (const [name, value] of Object.entries(tag.attributes))
      if (value === 'http://www.w3.org/1999/xhtml' && name.startsWith('xmlns:')) this.xhtml = `${name.slice(6)}:`;
  }

  /** Datatypes, options and attribute kinds, for the values that are written anew. */
  private learn(local: string, tag: SaxesTagPlain): void {
    const { attributes } = tag;
    const id = attributes.IDENTIFIER ?? '';
    if (local.startsWith('DATATYPE-DEFINITION-') && id) {
      this.datatype = id;
      this.highestKey = 0;
    }
    if (local === 'SPEC-RELATION-TYPE') this.relationType = id;
    if (local === 'EMBEDDED-VALUE') this.highestKey = Math.max(this.highestKey, Number(attributes.KEY) || 0);
    if (local === 'ENUM-VALUE') this.optionId.set(`${this.datatype} ${attributes['LONG-NAME'] || id}`, id);
    if (local.startsWith('ATTRIBUTE-DEFINITION-') && !local.endsWith('-REF') && id) {
      this.attribute = id;
      for (const end of ['from', 'to'] as const) if (attributes['LONG-NAME'] === useNames[end]) this.usesOf.set(`${this.relationType} ${end}`, id);
      this.kindOf.set(id, local.slice('ATTRIBUTE-DEFINITION-'.length));
    }
    if (local.endsWith('-REF')) {
      this.collecting = true;
      this.reference = '';
    }
  }

  private closeReference(local: string): void {
    const text = this.reference.trim();
    this.collecting = false;
    if (local.startsWith('ATTRIBUTE-DEFINITION-') && this.value) this.value.definition = text;
    else if (local.startsWith('DATATYPE-DEFINITION-') && this.attribute) this.datatypeOf.set(this.attribute, text);
  }

  private newValues(): string {
    const edited = this.object && this.edits.values.get(this.object.id);
    return edited ? this.writeValues(edited) : '';
  }

  private writeValues(values: ReadonlyMap<string, ReqifValue | null>): string {
    return [...values].map(([attribute, value]) => (value ? this.writeValue(attribute, value) : '')).join('');
  }

  private writeValue(attribute: string, value: ReqifValue): string {
    const kind =
      this.kindOf.get(attribute) ?? { text: 'STRING', number: 'REAL', date: 'DATE', yesNo: 'BOOLEAN', rich: 'XHTML', choice: 'ENUMERATION' }[value.kind];
    const definition = this.wrap('DEFINITION', this.wrap(`ATTRIBUTE-DEFINITION-${kind}-REF`, escapeText(attribute)));
    const name = `ATTRIBUTE-VALUE-${kind}`;
    if (value.kind === 'choice') {
      const datatype = this.datatypeOf.get(attribute) ?? '';
      const ids = value.labels.flatMap((label) => this.optionId.get(`${datatype} ${label}`) ?? []);
      return this.wrap(name, this.wrap('VALUES', ids.map((id) => this.wrap('ENUM-VALUE-REF', escapeText(id))).join('')) + definition);
    }
    if (kind === 'XHTML')
      return this.wrap(name, this.wrap('THE-VALUE', this.toXhtml(value.kind === 'rich' ? value.html : `<p>${escapeText(value.text)}</p>`)) + definition);
    const text = value.kind === 'rich' ? '' : value.text;
    return `<${this.prefix}${name} THE-VALUE="${escapeAttribute(text)}">${definition}</${this.prefix}${name}>`;
  }

  /** Our HTML in the XHTML modules of ReqIF: one division, every element prefixed and closed, pictures as objects. */
  private toXhtml(html: string): string {
    const objectOf = (name: string, instead: string) => {
      const type = mediaTypeOf(name, this.edits.mediaTypes.get(name.replace(/&amp;/g, '&')));
      return `<object data="${name}" type="${escapeAttribute(type)}"${instead}</object>`;
    };
    const inside = html
      .replace(/<img src="(?:coomb-picture:)?([^"]*)" alt="([^"]*)"\s*\/?>/g, (_, name: string, alt: string) =>
        objectOf(name, `${alt ? ` name="${alt}"` : ''}>${alt}`),
      )
      .replace(/<a href="coomb-file:([^"]*)">(.*?)<\/a>/gs, (_, name: string, instead: string) => objectOf(name, `>${instead}`))
      // Formulas are no part of the XHTML modules of ReqIF, captions have no element there, and links to items no address.
      .replace(/<math[\s>].*?<\/math>/gs, writeFormula)
      .replace(/<(\/?)figcaption>/g, '<$1p>')
      .replace(/<(\/?)figure>/g, '<$1div>')
      .replace(/<a href="coomb-item:[^"]*">(.*?)<\/a>/gs, '$1')
      .replace(/<br\s*\/?>/g, '<br></br>')
      .replace(/<(\/?)u>/g, '<$1ins>')
      .replace(/<(\/?)s>/g, '<$1del>')
      .replace(/<(\/?)([a-z]+)/g, (_, slash: string, tag: string) => `<${slash}${this.xhtml}${tag}`);
    return `<${this.xhtml}div>${inside}</${this.xhtml}div>`;
  }

  /** Options that a datatype gets; asked again at the end of it, for datatypes that have no list of options yet. */
  private newOptions(): string {
    if (this.written.options === this.datatype) return '';
    this.written.options = this.datatype;
    return (this.edits.options.get(this.datatype) ?? [])
      .map((label, index) => {
        const id = `coomb-${this.datatype}-${index + 1}`;
        this.optionId.set(`${this.datatype} ${label}`, id);
        const key = `<${this.prefix}EMBEDDED-VALUE KEY="${this.highestKey + index + 1}" OTHER-CONTENT=""/>`;
        return `<${this.prefix}ENUM-VALUE IDENTIFIER="${escapeAttribute(id)}" LAST-CHANGE="${this.edits.now}" LONG-NAME="${escapeAttribute(label)}">${this.wrap('PROPERTIES', key)}</${this.prefix}ENUM-VALUE>`;
      })
      .join('');
  }

  private newObjects(): string {
    this.written.objects = true;
    return this.edits.added
      .map(
        ({ id, type, values }) =>
          `<${this.prefix}SPEC-OBJECT IDENTIFIER="${escapeAttribute(id)}" LAST-CHANGE="${this.edits.now}">${this.wrap('VALUES', this.writeValues(values))}${this.wrap('TYPE', this.wrap('SPEC-OBJECT-TYPE-REF', escapeText(type)))}</${this.prefix}SPEC-OBJECT>`,
      )
      .join('');
  }

  private newRelations(): string {
    this.written.relations = true;
    return this.edits.addedRelations
      .map(({ id, type, from, to, fromUse, toUse }) => {
        const uses = [fromUse && this.writeUse(type, 'from', fromUse), toUse && this.writeUse(type, 'to', toUse)].filter(Boolean).join('');
        const end = (name: string, object: string) => this.wrap(name, this.wrap('SPEC-OBJECT-REF', escapeText(object)));
        return `<${this.prefix}SPEC-RELATION IDENTIFIER="${escapeAttribute(id)}" LAST-CHANGE="${this.edits.now}">${this.wrap('VALUES', uses)}${this.wrap('TYPE', this.wrap('SPEC-RELATION-TYPE-REF', escapeText(type)))}${end('SOURCE', from)}${end('TARGET', to)}</${this.prefix}SPEC-RELATION>`;
      })
      .join('');
  }

  /** Nothing where the file's type of relation has no place for it; what reads the file back tells that. */
  private writeUse(type: string, end: 'from' | 'to', use: string): string {
    const attribute = this.usesOf.get(`${type} ${end}`);
    return attribute === undefined ? '' : this.writeValue(attribute, { kind: 'text', text: use });
  }

  private missingParts(local: string): string {
    if (local !== 'REQ-IF-CONTENT') return '';
    const objects = !this.written.objects && this.edits.added.length ? this.wrap('SPEC-OBJECTS', this.newObjects()) : '';
    const relations = !this.written.relations && this.edits.addedRelations.length ? this.wrap('SPEC-RELATIONS', this.newRelations()) : '';
    return objects + relations;
  }

  private newHierarchy(): string {
    const nodes = this.edits.hierarchies.get(this.specification);
    if (!nodes) return '';
    const write = (list: readonly ReqifNode[]): string =>
      list
        .map(
          ({ object, children }) =>
            `<${this.prefix}SPEC-HIERARCHY IDENTIFIER="${escapeAttribute(`${this.specification}-h${++this.hierarchyId}`)}" LAST-CHANGE="${this.edits.now}">${children.length ? this.wrap('CHILDREN', write(children)) : ''}${this.wrap('OBJECT', this.wrap('SPEC-OBJECT-REF', escapeText(object)))}</${this.prefix}SPEC-HIERARCHY>`,
        )
        .join('');
    return this.wrap('CHILDREN', write(nodes));
  }

  private wrap(name: string, content: string): string {
    return content ? `<${this.prefix}${name}>${content}</${this.prefix}${name}>` : '';
  }
}
