import Flatbush from 'flatbush';
import type { DrawnBody, DrawnRoute, DrawnShape } from './drawn.js';

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A drawing in the order in which it is painted, with what lies where. */
export interface DrawingScene {
  shapes: readonly DrawnShape[];
  routes: readonly DrawnRoute[];
  /** Everything that is drawn, with a margin. */
  bounds: Box;
  /** Shapes and routes by what they cover; entry i is shape i or route i. */
  shapeIndex: Flatbush | null;
  routeIndex: Flatbush | null;
  /** How deep each shape lies in others. */
  depth: Uint16Array;
}

const MARGIN = 24;

export function buildScene({ shapes, routes }: Pick<DrawnBody, 'shapes' | 'routes'>): DrawingScene {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const cover = (x: number, y: number) => {
    left = Math.min(left, x);
    top = Math.min(top, y);
    right = Math.max(right, x);
    bottom = Math.max(bottom, y);
  };
  for (const { x, y, width, height } of shapes) {
    cover(x, y);
    cover(x + width, y + height);
  }
  for (const { points, labelBox } of routes) {
    for (const { x, y } of points) cover(x, y);
    if (labelBox) cover(labelBox.x + labelBox.width, labelBox.y + labelBox.height);
  }
  if (left > right) [left, top, right, bottom] = [0, 0, 100, 100];
  const depth = new Uint16Array(shapes.length);
  // What holds others comes before them.
  shapes.forEach(({ inside }, index) => {
    depth[index] = inside >= 0 && inside < index ? depth[inside]! + 1 : 0;
  });
  return {
    shapes,
    routes,
    bounds: { x: left - MARGIN, y: top - MARGIN, width: right - left + 2 * MARGIN, height: bottom - top + 2 * MARGIN },
    shapeIndex: indexOf(shapes.map(({ x, y, width, height }) => [x, y, x + width, y + height])),
    routeIndex: indexOf(routes.map(({ points }) => spanOf(points))),
    depth,
  };
}

type Span = [minX: number, minY: number, maxX: number, maxY: number];

function spanOf(points: readonly { x: number; y: number }[]): Span {
  const span: Span = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of points) {
    span[0] = Math.min(span[0], x);
    span[1] = Math.min(span[1], y);
    span[2] = Math.max(span[2], x);
    span[3] = Math.max(span[3], y);
  }
  return span[0] > span[2] ? [0, 0, 0, 0] : span;
}

function indexOf(spans: readonly Span[]): Flatbush | null {
  if (spans.length === 0) return null;
  const index = new Flatbush(spans.length);
  for (const span of spans) index.add(...span);
  index.finish();
  return index;
}

/** Shapes and routes that a part of the drawing shows, in the order in which they are painted. */
export function findShown(scene: DrawingScene, { x, y, width, height }: Box): { shapes: number[]; routes: number[] } {
  const search = (index: Flatbush | null) => index?.search(x, y, x + width, y + height).sort((a, b) => a - b) ?? [];
  return { shapes: search(scene.shapeIndex), routes: search(scene.routeIndex) };
}

/** Figures that are so small that a little beside them counts as on them. */
const SMALL = 14;

/** The topmost shape at a point, small ones first; `reach` is how far beside it may be. */
export function findShapeAt(scene: DrawingScene, x: number, y: number, reach = 0): number {
  const near = scene.shapeIndex?.search(x - reach, y - reach, x + reach, y + reach) ?? [];
  let best = -1;
  for (const index of near) {
    const shape = scene.shapes[index]!;
    const isOn = x >= shape.x && x <= shape.x + shape.width && y >= shape.y && y <= shape.y + shape.height;
    if (!isOn && Math.min(shape.width, shape.height) > SMALL) continue;
    if (best < 0 || isAbove(scene, index, best)) best = index;
  }
  return best;
}

function isAbove({ depth }: DrawingScene, a: number, b: number): boolean {
  return depth[a] !== depth[b] ? depth[a]! > depth[b]! : a > b;
}

/** The route nearest to a point, within a distance. */
export function findRouteAt(scene: DrawingScene, x: number, y: number, within: number): number {
  let best = -1;
  let nearest = within;
  for (const index of scene.routeIndex?.search(x - within, y - within, x + within, y + within) ?? []) {
    const distance = distanceTo(scene.routes[index]!.points, x, y);
    if (distance <= nearest) [best, nearest] = [index, distance];
  }
  return best;
}

function distanceTo(points: readonly { x: number; y: number }[], x: number, y: number): number {
  let nearest = Infinity;
  for (let at = 1; at < points.length; at++) {
    const [a, b] = [points[at - 1]!, points[at]!];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const length = dx * dx + dy * dy;
    const along = length === 0 ? 0 : Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / length));
    nearest = Math.min(nearest, Math.hypot(a.x + along * dx - x, a.y + along * dy - y));
  }
  return nearest;
}

/** The shape that an arrow key leads to: the nearest in that direction, what lies straight ahead before what lies aside. */
export function findNeighbour({ shapes }: DrawingScene, from: number, direction: 'left' | 'right' | 'up' | 'down'): number {
  const own = shapes[from];
  if (!own) return shapes.length > 0 ? 0 : -1;
  const centre = ({ x, y, width, height }: Box) => ({ x: x + width / 2, y: y + height / 2 });
  const start = centre(own);
  let best = -1;
  let least = Infinity;
  shapes.forEach((shape, index) => {
    if (index === from || !(shape.element || shape.name)) return;
    const end = centre(shape);
    const [dx, dy] = [end.x - start.x, end.y - start.y];
    const [ahead, aside] = direction === 'left' ? [-dx, dy] : direction === 'right' ? [dx, dy] : direction === 'up' ? [-dy, dx] : [dy, dx];
    if (ahead <= 1) return;
    const cost = ahead + 2 * Math.abs(aside);
    if (cost < least) [best, least] = [index, cost];
  });
  return best;
}
