import type { ModelBox, ShapeStyle } from '@coomb/core';
import { childOf, childrenOf, type XmlNode } from './xml-tree.js';

const number = (text: string | undefined): number => {
  const value = Number(text);
  return Number.isFinite(value) ? value : 0;
};

/** Bounds, way points and colours as the standards for diagram interchange write them. */
export function readBounds(node: XmlNode | undefined): ModelBox | undefined {
  const bounds = node && childOf(node, 'Bounds');
  if (!bounds) return undefined;
  const { x, y, width, height } = bounds.attributes;
  return { x: number(x), y: number(y), width: Math.max(0, number(width)), height: Math.max(0, number(height)) };
}

export const readWaypoints = (node: XmlNode): { x: number; y: number }[] =>
  childrenOf(node, 'waypoint').map(({ attributes }) => ({ x: number(attributes.x), y: number(attributes.y) }));

const COLOUR = /^#?([0-9a-f]{6})$/i;
const colourOf = (text: string | undefined) => {
  const found = COLOUR.exec(text?.trim() ?? '');
  return found ? `#${found[1]!.toLowerCase()}` : undefined;
};

/** Colours that tools write beside the standard, or as DC colours. */
export function readLook({ attributes, children }: XmlNode): ShapeStyle | undefined {
  const channels = (tag: string) => {
    const found = children.find((child) => child.tag === tag) ?? children.find((child) => child.tag === 'Style')?.children.find((child) => child.tag === tag);
    if (!found) return undefined;
    const parts = ['red', 'green', 'blue'].map((name) => Number(found.attributes[name] ?? 0));
    return parts.every((one) => one >= 0 && one <= 255) ? `#${parts.map((one) => Math.round(one).toString(16).padStart(2, '0')).join('')}` : undefined;
  };
  const fill = colourOf(attributes['background-color'] ?? attributes.fill) ?? channels('FillColor');
  const line = colourOf(attributes['border-color'] ?? attributes.stroke) ?? channels('StrokeColor');
  const font = channels('FontColor');
  return fill || line || font ? { ...(fill && { fill }), ...(line && { line }), ...(font && { font }) } : undefined;
}

/** Which shape each lies in: the smallest that encloses it whole. Shapes come back with what encloses others before them. */
export function nestByBounds<S extends ModelBox & { inside: number }>(shapes: S[], encloses: (shape: S) => boolean): S[] {
  const order = shapes.map((_, index) => index).sort((a, b) => shapes[b]!.width * shapes[b]!.height - shapes[a]!.width * shapes[a]!.height || a - b);
  const sorted = order.map((index) => shapes[index]!);
  const holders: number[] = [];
  sorted.forEach((shape, index) => {
    shape.inside = -1;
    for (let at = holders.length - 1; at >= 0; at--) {
      const other = sorted[holders[at]!]!;
      const fits =
        shape.x >= other.x && shape.y >= other.y && shape.x + shape.width <= other.x + other.width && shape.y + shape.height <= other.y + other.height;
      if (fits && other !== shape) {
        shape.inside = holders[at]!;
        break;
      }
    }
    if (encloses(shape)) holders.push(index);
  });
  return sorted;
}
