import type { SourcePicture } from './document.js';

/** Uses are paths of references, parted by slashes: the relation holds only where an end is used so. */
export interface ExchangeRelation {
  id: string;
  type: string;
  from: string;
  to: string;
  fromUse?: string | undefined;
  toUse?: string | undefined;
}

/** Requirements as tools exchange them: typed objects with attributes, outlines that show them, relations between them. */
export interface ExchangeDocument {
  title: string;
  /** Tool that wrote the file, when it says so. */
  tool: string;
  types: ExchangeType[];
  relationTypes: { id: string; name: string; count: number }[];
  objects: ExchangeObject[];
  outlines: { id: string; name: string; nodes: ExchangeNode[] }[];
  relations: ExchangeRelation[];
  /** Pictures and other objects in rich text that are at hand, by the name that the text has for them. */
  pictures: Map<string, SourcePicture>;
  /** Media types of all objects that rich text names, as the file says; empty where it does not. */
  embedded: Map<string, string>;
}

export interface ExchangeType {
  id: string;
  name: string;
  attributes: ExchangeAttribute[];
  /** How many objects are of the type. */
  count: number;
}

export interface ExchangeAttribute {
  id: string;
  name: string;
  type: 'text' | 'rich' | 'choice' | 'choices' | 'number' | 'date' | 'yesNo';
  /** What may be chosen; values hold these labels. */
  options?: string[];
  /** Identifier of the enumeration that the options belong to. */
  datatype?: string;
}

export interface ExchangeObject {
  id: string;
  type: string;
  name: string;
  /** By attribute; rich text as sanitised HTML, choices as labels. */
  values: Record<string, string | string[]>;
  /** Line of the file. */
  line: number;
  /** File of an archive of several that it stands in. */
  part?: string;
}

export interface ExchangeNode {
  object: string;
  children: ExchangeNode[];
}

/** The first objects of a large file, with the outlines and relations among them: enough to make a recipe by. */
export function cutExchange(document: ExchangeDocument, most: number): ExchangeDocument {
  if (document.objects.length <= most) return document;
  const kept = new Set<string>();
  const cut = (nodes: readonly ExchangeNode[]): ExchangeNode[] => {
    const found: ExchangeNode[] = [];
    for (const node of nodes) {
      if (kept.size >= most) break;
      kept.add(node.object);
      found.push({ object: node.object, children: cut(node.children) });
    }
    return found;
  };
  const outlines = document.outlines.map((outline) => ({ ...outline, nodes: cut(outline.nodes) }));
  if (kept.size === 0) for (const object of document.objects.slice(0, most)) kept.add(object.id);
  return {
    ...document,
    outlines,
    objects: document.objects.filter((object) => kept.has(object.id)),
    relations: document.relations.filter((relation) => kept.has(relation.from) && kept.has(relation.to)),
  };
}
