import { type Coat, dashOf } from '../register/coat.js';
import type { DrawnRoute } from './drawn.js';
import type { EndMark } from './figure.js';
import type { Detail } from './brush.js';
import { fitLine, type Paper, type Pen, type PenFont } from './pen.js';

const LABEL: PenFont = { size: 11 };

/** Paints a route with its marks and label. */
export function paintRoute(pen: Pen, paper: Paper, route: DrawnRoute, detail: Detail, ground = paper.ground, coat: Coat = {}): void {
  const { points, dashed } = route;
  if (points.length < 2) return;
  const stroke = coat.line ?? coat.fill ?? route.style?.line ?? paper.line;
  const flat: number[] = [];
  for (const { x, y } of points) flat.push(x, y);
  const own = coat.dash && detail >= 2 ? { dashes: dashOf(coat.dash) } : {};
  pen.line(flat, false, { stroke, width: detail === 0 ? 3 : (coat.width ?? (coat.fill ? 1.8 : 1.1)), dashed: dashed && detail >= 2, ...own });
  if (detail < 2) return;
  paintEnd(pen, paper, route.start, points[1]!, points[0]!, stroke);
  paintEnd(pen, paper, route.end, points.at(-2)!, points.at(-1)!, stroke);
  if (detail < 3) return;
  if (route.label) {
    const { x, y, width } = route.labelBox ? { ...route.labelBox, x: route.labelBox.x + route.labelBox.width / 2, y: route.labelBox.y + 11 } : middleOf(points);
    const text = fitLine(pen, route.label, LABEL, Math.max(width, 160));
    const wide = pen.measure(text, LABEL);
    pen.rect(x - wide / 2 - 2, y - 10, wide + 4, 13, 0, { fill: ground });
    pen.text(text, x, y, LABEL, 'middle', paper.ink);
  }
  for (const [text, end, towards] of [
    [route.startText, points[0]!, points[1]!],
    [route.endText, points.at(-1)!, points.at(-2)!],
  ] as const)
    if (text) {
      const isFlat = Math.abs(towards.x - end.x) > Math.abs(towards.y - end.y);
      const isLeft = isFlat ? towards.x < end.x : false;
      pen.text(text, end.x + (isFlat ? (isLeft ? -8 : 8) : 6), end.y + (isFlat ? -5 : towards.y > end.y ? 14 : -6), LABEL, isLeft ? 'end' : 'start', paper.ink);
    }
}

/** The middle of the longest stretch. */
function middleOf(points: readonly { x: number; y: number }[]): { x: number; y: number; width: number } {
  let longest = -1;
  let found = { x: points[0]!.x, y: points[0]!.y, width: 160 };
  for (let at = 1; at < points.length; at++) {
    const [a, b] = [points[at - 1]!, points[at]!];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (length > longest) {
      longest = length;
      found = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 + 3.5, width: 160 };
    }
  }
  return found;
}

interface Point {
  x: number;
  y: number;
}

function paintEnd(pen: Pen, paper: Paper, mark: EndMark, from: Point, to: Point, stroke: string): void {
  if (mark === 'none') return;
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  /** A point behind the end and aside of the line. */
  const at = (back: number, aside: number): [number, number] => [to.x - back * ux - aside * uy, to.y - back * uy + aside * ux];
  const open = { stroke, width: 1.2 };
  const hollow = { stroke, width: 1.2, fill: paper.ground };
  const filled = { stroke, width: 1, fill: stroke };
  switch (mark) {
    case 'arrow':
      pen.line([...at(9, 4.5), to.x, to.y, ...at(9, -4.5)], false, open);
      break;
    case 'triangle':
      pen.line([...at(12, 6.5), to.x, to.y, ...at(12, -6.5)], true, hollow);
      break;
    case 'filled':
      pen.line([...at(9, 4), to.x, to.y, ...at(9, -4)], true, filled);
      break;
    case 'diamond':
    case 'filledDiamond':
      pen.line([to.x, to.y, ...at(8, 4.5), ...at(16, 0), ...at(8, -4.5)], true, mark === 'diamond' ? hollow : filled);
      break;
    case 'circle':
    case 'filledCircle': {
      const [x, y] = at(4, 0);
      pen.ellipse(x, y, 4, 4, mark === 'circle' ? hollow : filled);
      break;
    }
    case 'slash':
      pen.line([...at(6, 5), ...at(12, -5)], false, open);
      break;
    default:
  }
}
