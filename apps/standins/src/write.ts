import type { Thing } from './thing.js';

/** How a tool writes what the standard leaves open. */
export interface Dialect {
  xmi: string;
  uml: string;
  profile: string;
  values: 'attributes' | 'elements';
  marks: 'before' | 'after';
}

const escaped = (text: string) =>
  text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    .replace(/\n/g, '&#10;')
    .replace(/\r/g, '&#13;')
    .replace(/\t/g, '&#9;');

export function writeThings(things: readonly Thing[], dialect: Dialect, exporter: string): string {
  const { xmi, uml, profile, values, marks } = dialect;
  const refer = (name: string, ids: readonly string[]): [attribute: string, inside: string] =>
    values === 'attributes' ? [` ${name}="${ids.map(escaped).join(' ')}"`, ''] : ['', ids.map((id) => `<${name} ${xmi}:idref="${escaped(id)}"/>`).join('')];
  const write = (thing: Thing, isTop: boolean): string => {
    let attributes = thing.id ? ` ${xmi}:id="${escaped(thing.id)}"` : '';
    let inside = '';
    for (const [name, value] of Object.entries(thing.values)) {
      if (name === '') inside += escaped(value);
      else if (values === 'attributes' || thing.space === 'unknown') attributes += ` ${name}="${escaped(value)}"`;
      else inside += `<${name}>${escaped(value)}</${name}>`;
    }
    for (const [name, ids] of Object.entries(thing.refs)) {
      const [attribute, element] = refer(name, ids);
      attributes += attribute;
      inside += element;
    }
    for (const { role, numbers } of thing.places)
      inside += `<${role}${Object.entries(numbers)
        .map(([name, value]) => ` ${name}="${escaped(value)}"`)
        .join('')}/>`;
    inside += thing.inside.map((one) => write(one, false)).join('');
    const prefix = thing.space === 'model' ? uml : thing.space === 'drawing' ? 'umldi' : profile;
    const role = thing.role.slice(thing.role.indexOf(':') + 1);
    const tag = thing.space === 'unknown' ? (role === 'Extension' ? `${xmi}:Extension` : role) : isTop ? `${prefix}:${thing.type}` : role;
    const typed = isTop || thing.space === 'unknown' ? '' : ` ${xmi}:type="${prefix}:${thing.type}"`;
    return `<${tag}${typed}${attributes}${inside ? `>${inside}</${tag}>` : '/>'}\n`;
  };
  const applied = things.filter(({ space }) => space === 'profile');
  const rest = things.filter(({ space }) => space !== 'profile');
  const body = (marks === 'before' ? [...applied, ...rest] : [...rest, ...applied]).map((thing) => write(thing, true)).join('');
  const spaces = {
    [xmi]: 'http://www.omg.org/spec/XMI/20131001',
    [uml]: 'http://www.omg.org/spec/UML/20161101',
    umldi: 'http://www.omg.org/spec/UML/20161101/UMLDI',
    [profile]: 'http://www.omg.org/spec/SysML/20181001/SysML',
  };
  const names = Object.entries(spaces).map(([prefix, address]) => ` xmlns:${prefix}="${address}"`);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<${xmi}:XMI${names.join('')}>\n<${xmi}:Documentation><${xmi}:exporter>${exporter}</${xmi}:exporter></${xmi}:Documentation>\n${body}</${xmi}:XMI>\n`;
}
