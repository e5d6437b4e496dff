import type { AddedElement, ModelEdits } from '../model-out/model-edits.js';
import { TreeEdits, writeElement } from '../model-out/tree-edits.js';
import type { XmlEdit } from '../xml/rewrite-xml.js';
import { childOf, childrenOf, type XmlNode } from '../xml/xml-tree.js';

/**
 * What changed here, as edits of a system structure: names, descriptions, what was withdrawn with its connections, and components and connectors that
 * were made. Everything is known by its name there, so that a new name is told to the connections.
 */
export function editSsp(root: XmlNode, wanted: ModelEdits): Map<number, XmlEdit> {
  const edits = new TreeEdits();
  const { nodeOf, connections } = findByPath(root);
  for (const [path, text] of wanted.texts) {
    const node = nodeOf.get(path);
    if (node) edits.setAttributes(node, { description: text || null });
  }
  for (const [path, name] of wanted.names) {
    const node = nodeOf.get(path);
    if (node) edits.setAttributes(node, { name });
  }
  for (const path of wanted.removed) {
    const node = nodeOf.get(path);
    if (node) edits.drop(node);
  }
  const removed = new Set(wanted.removedRelations.map(({ relation }) => relation));
  const isGone = (path: string) => [path, path.slice(0, path.lastIndexOf('.'))].some((one) => nodeOf.has(one) && edits.isGone(nodeOf.get(one)!));
  for (const { node, id, ends } of connections) {
    if (removed.has(id) || ends.some(isGone)) edits.drop(node);
    else
      ends.forEach((end, at) => {
        const [element, connector] = [wanted.names.get(end.slice(0, end.lastIndexOf('.'))), wanted.names.get(end)];
        const side = at === 0 ? 'start' : 'end';
        // An end without an element is a connector of the system itself.
        if (element !== undefined && node.attributes[`${side}Element`] !== undefined) edits.setAttributes(node, { [`${side}Element`]: element });
        if (connector !== undefined) edits.setAttributes(node, { [`${side}Connector`]: connector });
      });
  }
  const made = new Set(wanted.added.map(({ id }) => id));
  for (const element of wanted.added) {
    const owner = element.parent === null ? undefined : nodeOf.get(element.parent);
    if (owner && !made.has(element.parent ?? '')) add(edits, owner, element, wanted.added);
  }
  return edits.written;
}

function add(edits: TreeEdits, owner: XmlNode, element: AddedElement, all: readonly AddedElement[]): void {
  const [list, markup] = [element.type === 'Connector' ? 'Connectors' : 'Elements', write(owner.prefix, element, all)];
  const known = childOf(owner, list);
  if (!markup || (list === 'Elements' && owner.tag !== 'System')) return;
  if (known) edits.append(known, markup);
  // Connectors come first in a component or system, elements behind them.
  else
    edits.place(
      owner,
      `<${owner.prefix}${list}>${markup}</${owner.prefix}${list}>`,
      (tag) => list === 'Elements' && ['Connectors', 'ElementGeometry', 'ParameterBindings'].includes(tag),
    );
}

/** What is made here says what it is; which program or direction it has is said where it is built. */
function write(prefix: string, { id, type, name, text }: AddedElement, all: readonly AddedElement[]): string {
  const said = { name, description: text || undefined };
  if (type === 'Connector') return writeElement(prefix, 'Connector', { ...said, kind: 'inout' });
  if (type !== 'SystemComponent' && type !== 'System') return '';
  const inside = (list: string, isIn: (one: AddedElement) => boolean) => {
    const markup = all.filter((one) => one.parent === id && isIn(one)).map((one) => write(prefix, one, all));
    return markup.length > 0 ? `<${prefix}${list}>${markup.join('')}</${prefix}${list}>` : '';
  };
  const connectors = inside('Connectors', (one) => one.type === 'Connector');
  if (type === 'SystemComponent') return writeElement(prefix, 'Component', { ...said, source: '' }, connectors);
  return writeElement(prefix, 'System', said, connectors + inside('Elements', (one) => one.type !== 'Connector'));
}

interface Connection {
  node: XmlNode;
  id: string;
  ends: string[];
}

/** Systems, components and connectors by their path of names, as they are read; connections with the paths of their ends. */
function findByPath(root: XmlNode): { nodeOf: Map<string, XmlNode>; connections: Connection[] } {
  const nodeOf = new Map<string, XmlNode>();
  const connections: Connection[] = [];
  const note = (path: string, node: XmlNode) => {
    if (!nodeOf.has(path)) nodeOf.set(path, node);
  };
  const visit = (node: XmlNode, above: string) => {
    const path = above ? `${above}/${node.attributes.name ?? ''}` : (node.attributes.name ?? '');
    note(path, node);
    for (const connector of childrenOf(childOf(node, 'Connectors') ?? node, 'Connector')) note(`${path}.${connector.attributes.name ?? ''}`, connector);
    for (const part of childOf(node, 'Elements')?.children ?? [])
      if (['System', 'Component', 'SignalDictionaryReference'].includes(part.tag)) visit(part, path);
    for (const connection of childrenOf(childOf(node, 'Connections') ?? node, 'Connection')) {
      const { id, startElement, startConnector = '', endElement, endConnector = '' } = connection.attributes;
      const end = (element: string | undefined, connector: string) => `${element ? `${path}/${element}` : path}.${connector}`;
      const ends = [end(startElement, startConnector), end(endElement, endConnector)];
      connections.push({ node: connection, id: id ?? ends.join(' > '), ends });
    }
  };
  const system = childOf(root, 'System');
  if (system) visit(system, '');
  return { nodeOf, connections };
}
