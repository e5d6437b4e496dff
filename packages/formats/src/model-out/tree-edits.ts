import { escapeAttribute, escapeText, type XmlEdit } from '../xml/rewrite-xml.js';
import { childOf, walkTree, type XmlNode } from '../xml/xml-tree.js';
import type { ModelEdits } from './model-edits.js';

export interface Box {
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
export const sayLength = (value: number): string => String(Math.round(value * 1000) / 1000);
export const sayBox = ({ x, y, width, height }: Box): Record<string, string> => ({
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

/** Where new shapes of a drawing stand: in a row below all that is drawn. */
export class RoomBelow {
  private x: number;
  private readonly y: number;

  constructor(boxes: readonly Box[]) {
    this.x = boxes.length === 0 ? 0 : Math.min(...boxes.map(({ x }) => x));
    this.y = boxes.length === 0 ? 0 : Math.max(...boxes.map(({ y, height }) => y + height)) + 40;
  }

  take(width: number, height: number): Box {
    const box = { x: this.x, y: this.y, width, height };
    this.x += width + 40;
    return box;
  }
}

/** A straight line between two boxes, from border to border. */
export function lineBetween(from: Box, to: Box): { x: number; y: number }[] {
  const centre = ({ x, y, width, height }: Box) => ({ x: x + width / 2, y: y + height / 2 });
  const [start, end] = [centre(from), centre(to)];
  const leave = (box: Box, own: { x: number; y: number }, other: { x: number; y: number }) => {
    const [dx, dy] = [other.x - own.x, other.y - own.y];
    const part = Math.max(Math.abs(dx) / (box.width / 2 || 1), Math.abs(dy) / (box.height / 2 || 1));
    return part <= 1 ? own : { x: own.x + dx / part, y: own.y + dy / part };
  };
  return [leave(from, start, end), leave(to, end, start)];
}
