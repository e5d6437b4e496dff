import type { ModelEdits } from '../model-out/model-edits.js';
import { TreeEdits } from '../model-out/tree-edits.js';
import type { XmlEdit } from '../xml/rewrite-xml.js';
import { childOf, childrenOf, type XmlNode } from '../xml/xml-tree.js';

/**
 * What changed here, as edits of a system structure: descriptions, and what was withdrawn with its connections. Systems, components and connectors
 * are known by their names there, so that names and what is new stay here; reading the file back tells it.
 */
export function editSsp(root: XmlNode, wanted: ModelEdits): Map<number, XmlEdit> {
  const edits = new TreeEdits();
  const { nodeOf, connections } = findByPath(root);
  for (const [path, text] of wanted.texts) {
    const node = nodeOf.get(path);
    if (node) edits.setAttributes(node, { description: text || null });
  }
  for (const path of wanted.removed) {
    const node = nodeOf.get(path);
    if (node) edits.drop(node);
  }
  const removed = new Set(wanted.removedRelations.map(({ relation }) => relation));
  const isGone = (path: string) => [path, path.slice(0, path.lastIndexOf('.'))].some((one) => nodeOf.has(one) && edits.isGone(nodeOf.get(one)!));
  for (const { node, id, ends } of connections) if (removed.has(id) || ends.some(isGone)) edits.drop(node);
  return edits.written;
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
