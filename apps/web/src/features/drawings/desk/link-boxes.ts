import type { OutlineReply } from '@coomb/contract';
import { counted, type DrawnRoute, type DrawnShape, findFree, groupBy, type LinkBoxes, type Scheme } from '@coomb/core';
import type { DrawnLinks } from './drawn-links';

/** Boxes that are drawn beside shapes: behind the shapes of the drawing, in the order of those that they belong to. */
export interface DrawnBoxes {
  shapes: DrawnShape[];
  routes: DrawnRoute[];
  /** The shape that each box belongs to. */
  ownerOf: number[];
}

const MOST_LINES = 8;
const LINE = 17;

/** For each shape that is asked for, a box with what it is linked with in the layers that are chosen (all of them where none is). */
export function buildLinkBoxes(
  drawing: { shapes: readonly DrawnShape[] },
  drawn: DrawnLinks,
  outline: OutlineReply,
  scheme: Scheme,
  { shown, layers, places }: LinkBoxes,
): DrawnBoxes {
  const boxes: DrawnBoxes = { shapes: [], routes: [], ownerOf: [] };
  const isChosen = (row: number) => layers.length === 0 || layers.includes(scheme.kinds[outline.kind[row]!]?.layer ?? '');
  const holders = new Set(drawing.shapes.map(({ inside }) => inside));
  const taken = drawing.shapes.filter((_, index) => !holders.has(index)).map(({ x, y, width, height }) => ({ x, y, width, height }));
  const count = drawing.shapes.length;
  drawing.shapes.forEach((shape, index) => {
    if (!shape.item || (shown !== 'all' && !shown.includes(shape.id))) return;
    const links = (drawn.of.get(drawn.rowOf[index] ?? -1) ?? []).filter(({ other }) => isChosen(other));
    if (links.length === 0) return;
    const told = links.slice(0, MOST_LINES);
    const parts = [...groupBy(told, ({ phrase }) => phrase)].map(([title, list]) => ({
      title,
      lines: list.map(({ other }) => `${outline.reference[other]} ${outline.title[other]}`),
    }));
    if (links.length > MOST_LINES) parts.push({ title: '', lines: [`and ${links.length - MOST_LINES} more`] });
    const lines = parts.flatMap((part) => [part.title, ...part.lines]).filter(Boolean);
    const size = {
      width: Math.max(130, Math.min(250, Math.max(...lines.map((line) => line.length)) * 6.4 + 24)),
      height: lines.length * LINE + parts.length * 8 + 8,
    };
    const place = places[shape.id] ?? findFree(shape, { x: 0, y: 0, ...size }, taken);
    const box = { x: place.x, y: place.y, ...size };
    taken.push(box);
    boxes.ownerOf.push(index);
    boxes.shapes.push({ id: `links of ${shape.id}`, element: '', item: null, inside: -1, figure: 'box', name: counted(links.length, 'link'), parts, ...box });
    boxes.routes.push({
      ...{ id: `to links of ${shape.id}`, element: '', from: index, to: count + boxes.shapes.length - 1, points: joinBoxes(shape, box) },
      ...{ dashed: true, start: 'none', end: 'none', label: '' },
    });
  });
  return boxes;
}

type Area = Pick<DrawnShape, 'x' | 'y' | 'width' | 'height'>;

/** The shortest straight way between the borders of two boxes. */
function joinBoxes(a: Area, b: Area): { x: number; y: number }[] {
  const clamp = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));
  const from = { x: clamp(b.x + b.width / 2, a.x, a.x + a.width), y: clamp(b.y + b.height / 2, a.y, a.y + a.height) };
  return [from, { x: clamp(from.x, b.x, b.x + b.width), y: clamp(from.y, b.y, b.y + b.height) }];
}
