/** An object of a model, however a file writes it. */
export interface Part {
  type: string;
  /** Property of the owner that holds it; `packagedElement` where nothing is said. */
  tag?: string;
  id: string;
  name?: string;
  /** Texts by property. */
  values?: Record<string, string>;
  /** Identifiers by property. */
  ends?: Record<string, string[]>;
  inside?: Part[];
}

/** A stereotype on an object, with its values. */
export interface Mark {
  stereotype: string;
  base: string;
  on: string;
  values?: Record<string, string>;
  ends?: Record<string, string[]>;
}

/** What the standards leave open: each is a way that some tool writes. */
export interface XmiDialect {
  /** Whether the root is XMI; else the model itself is the root and no stereotypes or drawings stand beside it. */
  root: boolean;
  xmi: string;
  uml: string;
  profile: string;
  version: '2.1' | '2.5.1';
  values: 'attributes' | 'elements';
  ends: 'attributes' | 'idref' | 'href';
  marks: 'before' | 'after';
  type: 'xmi' | 'xsi';
  ids: 'id' | 'uuid' | 'both';
  encoding: 'utf8' | 'utf16le' | 'utf16be';
  /** Whether tools write something of their own between. */
  extended: boolean;
}

export const plainDialect: XmiDialect = {
  root: true,
  xmi: 'xmi',
  uml: 'uml',
  profile: 'sysml',
  version: '2.5.1',
  values: 'attributes',
  ends: 'attributes',
  marks: 'after',
  type: 'xmi',
  ids: 'id',
  encoding: 'utf8',
  extended: false,
};

export const xmiDialects: Record<string, XmiDialect> = {
  'attributes, marks after': plainDialect,
  'elements, other prefixes, marks before': {
    ...plainDialect,
    xmi: 'x',
    uml: 'U',
    profile: 'q',
    values: 'elements',
    ends: 'idref',
    marks: 'before',
    extended: true,
  },
  'XMI 2.1, addresses, xsi:type': { ...plainDialect, version: '2.1', ends: 'href', type: 'xsi', extended: true },
  'uuids only, UTF-16': { ...plainDialect, ids: 'uuid', ends: 'idref', encoding: 'utf16le' },
  'ids and uuids, big-endian, elements': { ...plainDialect, ids: 'both', values: 'elements', ends: 'idref', encoding: 'utf16be', marks: 'before' },
};

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;').replace(/\n/g, '&#10;');

const SPACES = {
  '2.1': {
    xmi: 'http://schema.omg.org/spec/XMI/2.1',
    uml: 'http://schema.omg.org/spec/UML/2.1.1',
    profile: 'http://www.omg.org/spec/SysML/20100301/SysML-profile',
  },
  '2.5.1': {
    xmi: 'http://www.omg.org/spec/XMI/20131001',
    uml: 'http://www.omg.org/spec/UML/20161101',
    profile: 'http://www.omg.org/spec/SysML/20181001/SysML',
  },
};

/** One and the same model, as a file of a dialect. */
export function writeXmi(model: Part, marks: readonly Mark[], dialect: XmiDialect = plainDialect, beside = ''): Buffer {
  const { xmi, uml, profile } = dialect;
  const space = SPACES[dialect.version];
  const names = `xmlns:${xmi}="${space.xmi}" xmlns:${uml}="${space.uml}" xmlns:${profile}="${space.profile}" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xmlns:umldi="http://www.omg.org/spec/UML/20161101/UMLDI" xmlns:dc="http://www.omg.org/spec/DD/20131001/DC"`;
  const identify = (id: string) =>
    `${dialect.ids === 'uuid' ? '' : ` ${xmi}:id="${id}"`}${dialect.ids === 'id' ? '' : ` ${xmi}:uuid="${dialect.ids === 'both' ? `u-${id}` : id}"`}`;
  const refer = (tag: string, ids: readonly string[]): { attribute: string; inside: string } => {
    if (dialect.ends === 'attributes') return { attribute: ` ${tag}="${ids.join(' ')}"`, inside: '' };
    const one = (id: string) => (dialect.ends === 'href' ? `<${tag} href="#${id}"/>` : `<${tag} ${xmi}:idref="${id}"/>`);
    return { attribute: '', inside: ids.map(one).join('') };
  };
  const write = (part: Part, tag: string, more = ''): string => {
    let attributes = more;
    let inside = '';
    for (const [name, value] of Object.entries({ ...(part.name !== undefined && { name: part.name }), ...part.values }))
      if (dialect.values === 'attributes') attributes += ` ${name}="${escaped(value)}"`;
      else inside += `<${name}>${escaped(value)}</${name}>`;
    for (const [name, ids] of Object.entries(part.ends ?? {})) {
      const ends = refer(name, ids);
      attributes += ends.attribute;
      inside += ends.inside;
    }
    inside += (part.inside ?? []).map((one) => write(one, one.tag ?? 'packagedElement')).join('');
    if (dialect.extended) inside += `<${xmi}:Extension extender="Some tool"><notes colour="7">kept &amp; carried</notes></${xmi}:Extension>`;
    const typed = tag.includes(':') ? '' : ` ${dialect.type === 'xsi' ? 'xsi' : xmi}:type="${uml}:${part.type}"`;
    return `<${tag}${typed}${identify(part.id)}${attributes}${inside ? `>${inside}</${tag}>` : '/>'}\n`;
  };
  const applied = marks
    .map(({ stereotype, base, on, values = {}, ends = {} }, index) => {
      const based = refer(`base_${base}`, [on]);
      const texts = Object.entries(values).map(([name, value]) =>
        dialect.values === 'attributes' ? [` ${name}="${escaped(value)}"`, ''] : ['', `<${name}>${escaped(value)}</${name}>`],
      );
      const led = Object.entries(ends).map(([name, ids]) => refer(name, ids));
      const inside = based.inside + texts.map(([, one]) => one).join('') + led.map((one) => one.inside).join('');
      return `<${profile}:${stereotype}${identify(`mark${index}`)}${based.attribute}${texts.map(([one]) => one).join('')}${led.map((one) => one.attribute).join('')}${inside ? `>${inside}</${profile}:${stereotype}>` : '/>'}\n`;
    })
    .join('');
  const body = write(model, `${uml}:Model`, dialect.root ? '' : ` ${names}`);
  const whole = dialect.root
    ? `<${xmi}:XMI ${dialect.version === '2.1' ? `${xmi}:version="2.1" ` : ''}${names}>\n<${xmi}:Documentation><${xmi}:exporter>Some desk</${xmi}:exporter></${xmi}:Documentation>\n${dialect.marks === 'before' ? applied + body : body + applied}${beside}</${xmi}:XMI>`
    : body;
  const encodings = { utf8: 'UTF-8', utf16le: 'UTF-16', utf16be: 'UTF-16' };
  const text = `<?xml version="1.0" encoding="${encodings[dialect.encoding]}"?>\n${whole}`;
  if (dialect.encoding === 'utf8') return Buffer.from(text);
  const wide = Buffer.from(`\ufeff${text}`, 'utf16le');
  return dialect.encoding === 'utf16le' ? wide : wide.swap16();
}
