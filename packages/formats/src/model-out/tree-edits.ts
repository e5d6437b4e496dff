import { readBounds } from '../xml/diagram-parts.js';
import { escapeAttribute, escapeText, type XmlEdit } from '../xml/rewrite-xml.js';
import { childOf, walkTree, type XmlNode } from '../xml/xml-tree.js';
import type { ModelEdits } from './model-edits.js';

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Edits of a file that is held as a tree, by the elements that they are of. */
export class TreeEdits {
  readonly written = new Map<number, XmlEdit>();
  private readonly gone = new Set<XmlNode>();

  of(node: XmlNode): XmlEdit {
    let known = this.written.get(node.at);
    if (!known) this.written.set(node.at, (known = {}));
    return known;
  }

  setAttributes(node: XmlNode, attributes: Record<string, string | null>): void {
    const edit = this.of(node);
    edit.attributes = { ...edit.attributes, ...attributes };
  }

  append(node: XmlNode, markup: string): void {
    const edit = this.of(node);
    edit.append = (edit.append ?? '') + markup;
  }

  /** Puts markup behind the last child that may stand before it, else first of all: the standards say in which order children come. */
  place(node: XmlNode, markup: string, isBefore: (tag: string) => boolean): void {
    const last = node.children.findLast((child) => isBefore(child.tag) && !this.gone.has(child));
    const edit = this.of(last ?? node);
    if (last) edit.after = (edit.after ?? '') + markup;
    else edit.prepend = (edit.prepend ?? '') + markup;
  }

  /** An element goes with all that is in it; says whether it was still there. */
  drop(node: XmlNode): boolean {
    if (this.gone.has(node)) return false;
    for (const one of walkTree(node)) this.gone.add(one);
    this.of(node).drop = true;
    return true;
  }

  isGone(node: XmlNode): boolean {
    return this.gone.has(node);
  }

  /** What is said of an element stands in a child of it; a new one comes first, in the prefix of the element itself. */
  setText(node: XmlNode, tag: string, text: string): void {
    const own = childOf(node, tag);
    if (own) this.of(own).text = text;
    else if (text) this.place(node, writeElement(node.prefix, tag, {}, escapeText(text)), () => false);
  }

  /** Names of elements, and what is said of them in a child of a notation's own name. */
  writeWords(nodeOf: ReadonlyMap<string, XmlNode>, { names, texts }: Pick<ModelEdits, 'names' | 'texts'>, textTag: string): void {
    for (const [id, name] of names) {
      const node = nodeOf.get(id);
      if (node) this.setAttributes(node, { name });
    }
    for (const [id, text] of texts) {
      const node = nodeOf.get(id);
      if (node) this.setText(node, node.tag === 'textAnnotation' ? 'text' : textTag, text);
    }
  }

  /** Drops elements and relations that went; says whether any did. */
  dropGone(nodeOf: ReadonlyMap<string, XmlNode>, { removed, removedRelations }: Pick<ModelEdits, 'removed' | 'removedRelations'>): boolean {
    for (const id of [...removed, ...removedRelations.map(({ relation }) => relation)]) {
      const node = nodeOf.get(id);
      if (node) this.drop(node);
    }
    return this.gone.size > 0;
  }

  /** Bounds of shapes, and waypoints of lines that have as many as before. */
  placeDrawn(nodeOf: ReadonlyMap<string, XmlNode>, { boxes, points }: Pick<ModelEdits, 'boxes' | 'points'>): void {
    for (const [id, box] of boxes) {
      const node = nodeOf.get(id);
      const bounds = node && childOf(node, 'Bounds');
      if (bounds) this.setAttributes(bounds, sayBox(box));
    }
    for (const [id, bends] of points) {
      const waypoints = nodeOf.get(id)?.children.filter(({ tag }) => tag === 'waypoint') ?? [];
      if (waypoints.length !== bends.length) continue;
      waypoints.forEach((node, index) => this.setAttributes(node, { x: sayLength(bends[index]!.x), y: sayLength(bends[index]!.y) }));
    }
  }
}

/** No more digits than anybody sees. */
const sayLength = (value: number): string => String(Math.round(value * 1000) / 1000);
const sayBox = ({ x, y, width, height }: Box): Record<string, string> => ({
  x: sayLength(x),
  y: sayLength(y),
  width: sayLength(width),
  height: sayLength(height),
});

export function writeElement(prefix: string, tag: string, attributes: Record<string, string | undefined>, inside = ''): string {
  const said = Object.entries(attributes)
    .map(([name, value]) => (value === undefined ? '' : ` ${name}="${escapeAttribute(value)}"`))
    .join('');
  return `<${prefix}${tag}${said}${inside ? `>${inside}</${prefix}${tag}>` : '/>'}`;
}

export function nodesById(root: XmlNode): Map<string, XmlNode> {
  const found = new Map<string, XmlNode>();
  for (const node of walkTree(root)) if (node.attributes.id && !found.has(node.attributes.id)) found.set(node.attributes.id, node);
  return found;
}

/** How a notation writes its drawings. */
export interface DrawingWords {
  drawing: string;
  shape: string;
  edge: string;
  /** Attribute that names what is shown, and how the name is read. */
  shows: string;
  readShown: (text: string) => string;
}

/** Adds shapes and lines to the first drawing of a file, as the drawing writes those that it has; where it has none, nothing is drawn. */
export class DrawnAdditions {
  private readonly drawing: XmlNode | undefined;
  private readonly boxOf = new Map<string, Box>();
  private next: { x: number; y: number };

  constructor(
    private readonly edits: TreeEdits,
    root: XmlNode,
    private readonly words: DrawingWords,
  ) {
    this.drawing = [...walkTree(root)].find(({ tag }) => tag === words.drawing);
    for (const node of this.drawing?.children ?? []) {
      const box = node.tag === words.shape ? readBounds(node) : undefined;
      if (box) this.boxOf.set(words.readShown(node.attributes[words.shows] ?? ''), box);
    }
    const boxes = [...this.boxOf.values()];
    // In a row below all that is drawn.
    this.next = { x: Math.min(0, ...boxes.map(({ x }) => x)), y: Math.max(0, ...boxes.map(({ y, height }) => y + height + 40)) };
  }

  addShape(id: string, width: number, height: number): void {
    const like = this.drawing?.children.find(({ tag }) => tag === this.words.shape);
    const bounds = like && childOf(like, 'Bounds');
    if (!like || !bounds) return;
    const box = { ...this.next, width, height };
    this.next.x += width + 40;
    this.boxOf.set(id, box);
    this.put(like, this.words.shape, `${id}-shape`, id, writeElement(bounds.prefix, 'Bounds', sayBox(box)));
  }

  /** A straight line from border to border. */
  addLine(id: string, from: string, to: string): void {
    const [start, end] = [this.boxOf.get(from), this.boxOf.get(to)];
    const like = this.drawing?.children.find(({ tag }) => tag === this.words.edge);
    const waypoint = like && childOf(like, 'waypoint');
    if (!start || !end || !like || !waypoint) return;
    const line = lineBetween(start, end).map(({ x, y }) => writeElement(waypoint.prefix, 'waypoint', { x: sayLength(x), y: sayLength(y) }));
    this.put(like, this.words.edge, `${id}-edge`, id, line.join(''));
  }

  private put(like: XmlNode, tag: string, id: string, shows: string, inside: string): void {
    this.edits.append(this.drawing!, writeElement(like.prefix, tag, { id, [this.words.shows]: shows }, inside));
  }
}

/** A straight line between two boxes, from border to border. */
function lineBetween(from: Box, to: Box): { x: number; y: number }[] {
  const centre = ({ x, y, width, height }: Box) => ({ x: x + width / 2, y: y + height / 2 });
  const [start, end] = [centre(from), centre(to)];
  const leave = (box: Box, own: { x: number; y: number }, other: { x: number; y: number }) => {
    const [dx, dy] = [other.x - own.x, other.y - own.y];
    const part = Math.max(Math.abs(dx) / (box.width / 2 || 1), Math.abs(dy) / (box.height / 2 || 1));
    return part <= 1 ? own : { x: own.x + dx / part, y: own.y + dy / part };
  };
  return [leave(from, start, end), leave(to, end, start)];
}
