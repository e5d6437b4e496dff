import { escapeAttribute, escapeText } from '../xml/rewrite-xml.js';
import type { XmiFile } from './xmi-file.js';
import { allOf } from './xmi-objects.js';

/** A property as markup: within the tag of its owner, or inside the owner. */
interface Written {
  attribute: string;
  inside: string;
}

const ENDS = ['client', 'supplier', 'type', 'annotatedElement', 'base_Class', 'general'];

/** How a file writes what the standard leaves open: new content is written in the same way. The file was read with its places. */
export class Dialect {
  /** Prefixes, with their colons. */
  readonly xmi: string;
  readonly uml: string;
  readonly valuesAsElements: boolean;
  private readonly ends: 'attributes' | 'idref' | 'href';
  private readonly ids: { id: boolean; uuid: boolean };

  constructor({ content: { objects, prefixes } }: XmiFile) {
    let [asElements, asAttributes] = [0, 0];
    const ends = { attributes: 0, idref: 0, href: 0 };
    for (const object of objects) {
      if ('name' in object.properties) {
        if (object.propertyAt?.name) asElements++;
        else asAttributes++;
      }
      for (const property of ENDS)
        if (property in object.properties) {
          const text = allOf(object, property)[0]!;
          if (!object.propertyAt?.[property]) ends.attributes++;
          else if (!text.includes('#')) ends.idref++;
          // What lies in another file can be referred to in no other way.
          else if (text.startsWith('#')) ends.href++;
        }
    }
    const first = objects.find((object) => object.space === 'uml');
    this.xmi = `${prefixes.xmi}:`;
    this.uml = `${prefixes.uml}:`;
    this.valuesAsElements = asElements > asAttributes;
    this.ends = (['attributes', 'idref', 'href'] as const).toSorted((a, b) => ends[b] - ends[a])[0]!;
    this.ids = { id: !first?.uuid || first.uuid !== first.id, uuid: Boolean(first?.uuid) };
  }

  value(name: string, text: string): Written {
    return this.valuesAsElements
      ? { attribute: '', inside: `<${name}>${escapeText(text)}</${name}>` }
      : { attribute: ` ${name}="${escapeAttribute(text)}"`, inside: '' };
  }

  /** Other elements by their identifiers; those of other files by their addresses. */
  refer(name: string, ids: readonly string[]): Written {
    if (ids.some((id) => id.includes('#')))
      return { attribute: '', inside: ids.map((id) => `<${name} href="${escapeAttribute(id.includes('#') ? id : `#${id}`)}"/>`).join('') };
    if (this.ends === 'attributes') return { attribute: ` ${name}="${escapeAttribute(ids.join(' '))}"`, inside: '' };
    const write = (id: string) => (this.ends === 'href' ? `<${name} href="#${escapeAttribute(id)}"/>` : `<${name} ${this.xmi}idref="${escapeAttribute(id)}"/>`);
    return { attribute: '', inside: ids.map(write).join('') };
  }

  identify(id: string): string {
    const said = ` ${this.xmi}id="${escapeAttribute(id)}"`;
    return `${this.ids.id ? said : ''}${this.ids.uuid ? ` ${this.xmi}uuid="${escapeAttribute(id)}"` : ''}`;
  }
}
