import { escapeAttribute, escapeText } from '../xml/rewrite-xml.js';
import { SYSML, SYSML_STEREOTYPES } from '../model-out/sysml.js';
import { References, type XmiFile } from './xmi-file.js';
import { allOf, type XmiObject } from './xmi-objects.js';

const SPACES = {
  xmi: 'http://www.omg.org/spec/XMI/20131001',
  uml: 'http://www.omg.org/spec/UML/20161101',
  umldi: 'http://www.omg.org/spec/UML/20161101/UMLDI',
  dc: 'http://www.omg.org/spec/DD/20131001/DC',
  di: 'http://www.omg.org/spec/DD/20131001/DI',
  sysml: SYSML,
};

/** Properties that hold text: a text that happens to be somebody's identifier is no reference. */
const TEXTS = new Set(['name', 'body', 'text', 'Text', 'id', 'Id', 'value', 'symbol', 'language', 'URI', 'href', 'visibility']);

/**
 * Files of one model in the standard's own way: UML 2.5.1 in XMI 2.5.1 with UML DI, one file, whatever dialect they came in. Everything of UML goes
 * along, known here or not; extensions of tools stay behind. Identifiers stay where XML allows them.
 */
export function writeStandardXmi(files: readonly XmiFile[], exporter: string): string {
  return new StandardWriter(files, exporter).write();
}

/** XML allows letters, digits and few signs in an identifier, and no digit first. */
export const cleanXmlId = (id: string): string => id.replace(/[^\w.-]/g, '_').replace(/^(?=[\d.-])/, '_');

class StandardWriter {
  private readonly out: string[] = [];
  private readonly idOf = new Map<XmiObject, string>();
  private readonly references: References;
  /** Namespaces of profiles that are no standard's, by prefix. */
  private readonly profiles = new Map<string, string>();

  constructor(
    private readonly files: readonly XmiFile[],
    private readonly exporter: string,
  ) {
    this.references = new References(files);
    const taken = new Set<string>();
    for (const file of files)
      for (const object of file.content.objects) {
        const clean = cleanXmlId(object.id);
        let id = clean;
        for (let number = 2; taken.has(id); number++) id = `${clean}-${number}`;
        taken.add(id);
        this.idOf.set(object, id);
      }
  }

  write(): string {
    const body: string[] = [];
    const beside: string[] = [];
    for (const file of this.files)
      for (const root of file.content.roots) {
        const target = root.space === 'uml' ? body : beside;
        this.out.length = 0;
        this.put(file, root, true);
        target.push(...this.out);
      }
    const names = Object.entries({ ...SPACES, ...Object.fromEntries(this.profiles) })
      .map(([prefix, uri]) => ` xmlns:${prefix}="${escapeAttribute(uri)}"`)
      .join('');
    return `<?xml version="1.0" encoding="UTF-8"?>\n<xmi:XMI${names}>\n<xmi:Documentation><xmi:exporter>${escapeText(this.exporter)}</xmi:exporter></xmi:Documentation>\n${body.join('')}${beside.join('')}</xmi:XMI>\n`;
  }

  private put(file: XmiFile, object: XmiObject, isRoot: boolean): void {
    const type = this.typeOf(file, object);
    const tag = isRoot ? type : object.tag;
    let attributes = isRoot && object.space !== 'uml' && object.space !== 'di' ? '' : ` xmi:type="${type}"`;
    attributes += ` xmi:id="${escapeAttribute(this.idOf.get(object)!)}"${object.uuid ? ` xmi:uuid="${escapeAttribute(object.uuid)}"` : ''}`;
    let inside = '';
    for (const property in object.properties) {
      const texts = allOf(object, property);
      const { ids, links } = this.readReferences(file, property, texts);
      if (ids.length > 0) attributes += ` ${property}="${escapeAttribute(ids.join(' '))}"`;
      inside += links.map((address) => `<${property} href="${escapeAttribute(address)}"/>`).join('');
      if (ids.length + links.length > 0) continue;
      const [only] = texts;
      if (texts.length === 1 && only !== undefined) attributes += ` ${property}="${escapeAttribute(only)}"`;
      else inside += texts.map((text) => `<${property}>${escapeText(text)}</${property}>`).join('');
    }
    for (const { tag: name, attributes: own } of object.structures ?? [])
      inside += `<${name}${Object.entries(own)
        .map(([key, value]) => (key ? ` ${key}="${escapeAttribute(value)}"` : ''))
        .join('')}/>`;
    this.out.push(`<${tag}${attributes}>${inside}`);
    const children = object.children ?? [];
    const at = this.out.length - 1;
    if (!inside && children.length === 0) this.out[at] = `<${tag}${attributes}/>\n`;
    else {
      for (const child of children) this.put(file, child, false);
      this.out.push(`</${tag}>\n`);
    }
  }

  private typeOf(file: XmiFile, object: XmiObject): string {
    if (object.space === 'uml' || object.space === 'none') return `uml:${object.type}`;
    if (object.space === 'di') return `umldi:${object.type}`;
    if (SYSML_STEREOTYPES.has(object.type.toLowerCase())) return `sysml:${object.type}`;
    const prefix = object.name.includes(':') ? object.name.slice(0, object.name.indexOf(':')) : 'profile';
    const own = Object.hasOwn(SPACES, prefix) ? `${prefix}1` : prefix;
    if (!this.profiles.has(own)) this.profiles.set(own, file.content.profiles.get(prefix) ?? `urn:profile:${own}`);
    return `${own}:${object.type}`;
  }

  /** What a property refers to: objects by their identifiers, what lies elsewhere by its address; nothing where it is a text. */
  private readReferences(file: XmiFile, property: string, texts: readonly string[]): { ids: string[]; links: string[] } {
    const none = { ids: [], links: [] };
    if (TEXTS.has(property)) return none;
    const ids: string[] = [];
    const links: string[] = [];
    for (const text of texts)
      for (const part of text.trim().split(/\s+/)) {
        const target = this.references.follow(file, part);
        if ('object' in target) ids.push(this.idOf.get(target.object)!);
        else if ('missing' in target || ('known' in target && part.includes('#'))) links.push(part);
        else return none;
      }
    return { ids, links };
  }
}
