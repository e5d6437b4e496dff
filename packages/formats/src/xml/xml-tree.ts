import { newRecord } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { NameSpaces, prefixOf } from './name-spaces.js';
import { inChunks, localName, walkXml } from './walk-xml.js';

/** An element of a file that is small enough to be held whole. */
export interface XmlNode {
  tag: string;
  /** Prefix of its name with the colon, or nothing. */
  prefix: string;
  /** Address of its namespace. */
  space: string;
  /** By their names without prefix, where no other of the same name has none. */
  attributes: Record<string, string>;
  text: string;
  children: XmlNode[];
  parent: XmlNode | null;
  line: number;
  /** Its number in the order in which elements begin. */
  at: number;
}

const MOST_NODES = 1_500_000;

/** Reads a file of XML as a tree. Throws ReadError. */
export async function readXmlTree(bytes: Uint8Array): Promise<XmlNode> {
  const scope = new NameSpaces();
  let root: XmlNode | undefined;
  let at: XmlNode | null = null;
  let count = 0;
  await walkXml(inChunks(bytes), {
    open(name, attributes, line) {
      scope.open(attributes);
      if (++count > MOST_NODES)
        throw new ReadError('model-too-large', `Line ${line}: the file holds more than ${MOST_NODES.toLocaleString('en-GB')} elements and was refused.`);
      const own = newRecord<string>();
      for (const key in attributes) {
        const at = key.indexOf(':');
        if (at < 0) {
          if (key !== 'xmlns') own[key] = attributes[key]!;
        } else if (!key.startsWith('xmlns:')) own[key.slice(at + 1)] ??= attributes[key]!;
      }
      const node: XmlNode = {
        tag: localName(name),
        prefix: name.includes(':') ? `${prefixOf(name)}:` : '',
        space: scope.find(prefixOf(name)),
        attributes: own,
        text: '',
        children: [],
        parent: at,
        line,
        at: count - 1,
      };
      if (at) at.children.push(node);
      else root = node;
      at = node;
    },
    close() {
      scope.close();
      at = at?.parent ?? null;
    },
    text(text) {
      if (at) at.text += text;
    },
  });
  if (!root) throw new ReadError('xml-broken', 'The file holds no XML element.');
  return root;
}

export const childOf = (node: XmlNode, tag: string): XmlNode | undefined => node.children.find((child) => child.tag === tag);
export const childrenOf = (node: XmlNode, tag: string): XmlNode[] => node.children.filter((child) => child.tag === tag);
export const textOf = (node: XmlNode | undefined): string => node?.text.trim() ?? '';

/** Every element below one, in the order of the file; without recursion. */
export function* walkTree(node: XmlNode): Generator<XmlNode> {
  const stack = [node];
  for (let next = stack.pop(); next; next = stack.pop()) {
    yield next;
    for (let at = next.children.length - 1; at >= 0; at--) stack.push(next.children[at]!);
  }
}
