import { DOMParser, type Element, type Node } from '@xmldom/xmldom';

/** Whatever has an identity in a model file, or is applied to what has. */
export interface Thing {
  /** What it is: "Class", "Satisfy", "UMLShape"; without the prefix that a file gives it. */
  type: string;
  space: 'model' | 'profile' | 'drawing' | 'unknown';
  /** Where it stands in its owner: "packagedElement", "ownedAttribute". */
  role: string;
  id: string;
  values: Record<string, string>;
  refs: Record<string, string[]>;
  /** Bounds and waypoints: things without identity. */
  places: { role: string; numbers: Record<string, string> }[];
  inside: Thing[];
}

const SPACES: readonly [RegExp, Thing['space']][] = [
  [/omg\.org\/spec\/UML\/[^/]+\/UMLDI|\/UMLDI/i, 'drawing'],
  [/omg\.org\/spec\/UML|eclipse\.org\/uml2/i, 'model'],
  [/SysML|profile/i, 'profile'],
];
const XMI = /omg\.org\/(?:spec\/)?XMI/i;
const DRAWN = /^(?:UML)?(?:\w*Diagram|Shape|Edge|Label|Style|Compartment|CompartmentableShape|ClassifierShape|MultiplicityLabel|NameLabel|KeywordLabel)$/;

const isElement = (node: Node): node is Element => node.nodeType === 1;
const childrenOf = (element: Element): Element[] => Array.from(element.childNodes).filter(isElement);
const localOf = (name: string) => name.slice(name.indexOf(':') + 1);

/** Everything that a file holds, outermost first. What is applied to others stands beside the model. */
export function readThings(text: string): Thing[] {
  const root = new DOMParser({ onError: (level, message) => level !== 'warning' && fail(message) }).parseFromString(text, 'text/xml').documentElement;
  if (!root) throw new Error('The file holds nothing.');
  const ids = new Set<string>();
  const collect = (element: Element) => {
    const id = idOf(element);
    if (id) ids.add(id);
    for (const child of childrenOf(element)) collect(child);
  };
  collect(root);
  const tops = localOf(root.tagName) === 'XMI' ? childrenOf(root) : [root];
  return tops.filter((top) => localOf(top.tagName) !== 'Documentation').map((top) => readThing(top, ids));
}

function fail(message: string): never {
  throw new Error(message);
}

function attributeOf(element: Element, name: string): string {
  for (const attribute of Array.from(element.attributes)) if (localOf(attribute.name) === name && attribute.name.includes(':')) return attribute.value;
  return '';
}

const idOf = (element: Element) => attributeOf(element, 'id') || attributeOf(element, 'uuid');

function spaceOf(element: Element, type: string): Thing['space'] {
  const named = attributeOf(element, 'type');
  const prefix = named.includes(':')
    ? named.slice(0, named.indexOf(':'))
    : element.tagName.includes(':')
      ? element.tagName.slice(0, element.tagName.indexOf(':'))
      : '';
  const address = prefix ? (element.lookupNamespaceURI(prefix) ?? '') : '';
  if (XMI.test(address) || localOf(element.tagName) === 'Extension') return 'unknown';
  if (DRAWN.test(type)) return 'drawing';
  return SPACES.find(([pattern]) => pattern.test(address))?.[1] ?? (prefix ? 'unknown' : 'model');
}

function readThing(element: Element, ids: ReadonlySet<string>): Thing {
  const named = attributeOf(element, 'type');
  const type = localOf(named || element.tagName);
  const thing: Thing = { type, space: spaceOf(element, type), role: element.tagName, id: idOf(element), values: {}, refs: {}, places: [], inside: [] };
  for (const { name, value } of Array.from(element.attributes)) {
    if (name.startsWith('xmlns') || (name.includes(':') && ['id', 'uuid', 'type', 'version'].includes(localOf(name)))) continue;
    const words = value.split(/\s+/).filter(Boolean);
    if (words.length > 0 && words.every((word) => ids.has(word)) && name !== 'name') thing.refs[name] = words;
    else thing.values[name] = value;
  }
  for (const child of childrenOf(element)) {
    const idref = attributeOf(child, 'idref') || (child.getAttribute('href') ?? '').replace(/^#/, '');
    const role = child.tagName;
    if (idref && !idOf(child) && childrenOf(child).length === 0) thing.refs[role] = [...(thing.refs[role] ?? []), idref];
    else if (idOf(child) || attributeOf(child, 'type') || spaceOf(child, localOf(role)) === 'unknown') thing.inside.push(readThing(child, ids));
    else if (childrenOf(child).length === 0 && child.attributes.length === 0) thing.values[role] = child.textContent ?? '';
    else
      thing.places.push({
        role: localOf(role),
        numbers: Object.fromEntries([
          ...Array.from(child.attributes).map(({ name, value }): [string, string] => [name, value]),
          ...childrenOf(child).map((one): [string, string] => [localOf(one.tagName), one.textContent ?? '']),
        ]),
      });
  }
  if (thing.space === 'unknown' && thing.inside.length === 0) {
    const own = element.textContent?.trim();
    if (own && childrenOf(element).length === 0) thing.values[''] = own;
  }
  return thing;
}

/** Every thing, owners before what they hold. */
export function* walk(things: readonly Thing[]): Generator<Thing> {
  for (const thing of things) {
    yield thing;
    yield* walk(thing.inside);
  }
}
