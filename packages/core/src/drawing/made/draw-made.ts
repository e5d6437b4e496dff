import type { ModelBox } from '../../source/model.js';
import type { DrawnRoute, DrawnShape } from '../drawn.js';
import type { MadeEdge, MadeGraph } from './made-graph.js';

interface Point {
  x: number;
  y: number;
}

/** Bends of edges as they were laid out, where nothing was moved since; by index. */
export type Bends = ReadonlyMap<number, readonly Point[]>;

/** A drawing of ours as shapes and routes. `itemId` gives the id of an item by its number. */
export function drawMade(
  graph: MadeGraph,
  boxes: readonly ModelBox[],
  itemId: (item: number) => string,
  bends: Bends = new Map(),
): { shapes: DrawnShape[]; routes: DrawnRoute[] } {
  // What holds others is painted before them.
  const order = [...graph.nodes.keys()].sort((a, b) => depthOf(graph, a) - depthOf(graph, b) || a - b);
  const shapeOf = new Map(order.map((node, shape) => [node, shape]));
  const shapes = order.map((index): DrawnShape => {
    const { key, item, name, keyword, figure, parts, inside } = graph.nodes[index]!;
    return {
      ...{ id: key, element: key, item: item < 0 ? null : itemId(item), inside: inside < 0 ? -1 : shapeOf.get(inside)!, figure, name },
      ...boxes[index]!,
      ...(keyword && { keyword }),
      ...(parts.length > 0 && { parts }),
    };
  });
  const routes = graph.edges.map((edge, index): DrawnRoute => {
    const points = bends.get(index) ?? (graph.isTree ? fork(boxes[edge.from]!, boxes[edge.to]!) : elbow(boxes[edge.from]!, boxes[edge.to]!));
    return {
      ...{ id: `e${index}`, element: '', from: shapeOf.get(edge.from)!, to: shapeOf.get(edge.to)!, points: [...points] },
      ...{ dashed: edge.derived || edge.suspect, start: edge.start, end: edge.end, label: edge.label },
      ...(edge.label && { labelBox: labelBox(points, edge) }),
    };
  });
  return { shapes, routes };
}

function depthOf({ nodes }: MadeGraph, index: number): number {
  let depth = 0;
  for (let up = nodes[index]!.inside; up >= 0; up = nodes[up]!.inside) depth++;
  return depth;
}

/** From the side of a node to that of its branch, bending once near the node: branches share the way. */
function fork(a: ModelBox, b: ModelBox): Point[] {
  const right = b.x + b.width / 2 >= a.x + a.width / 2;
  const [start, end] = right ? [a.x + a.width, b.x] : [a.x, b.x + b.width];
  const [from, to] = [a.y + a.height / 2, b.y + b.height / 2];
  if (Math.abs(from - to) < 1) return [point(start, from), point(end, to)];
  const bend = start + (right ? 18 : -18);
  return [point(start, from), point(bend, from), point(bend, to), point(end, to)];
}

/** From the sides that face each other, with two bends halfway; straight where they lie level, round the side where one lies in the other. */
function elbow(a: ModelBox, b: ModelBox): Point[] {
  const [ax, ay, bx, by] = [a.x + a.width / 2, a.y + a.height / 2, b.x + b.width / 2, b.y + b.height / 2];
  const overlapX = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const overlapY = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  if (overlapX > 0 && overlapY > 0) {
    // One lies in the other, or over it.
    const side = Math.max(a.x + a.width, b.x + b.width) + 20;
    return [point(a.x + a.width, ay), point(side, ay), point(side, by), point(b.x + b.width, by)];
  }
  if (overlapY > 24) {
    const y = Math.max(a.y, b.y) + overlapY / 2;
    return bx > ax ? [point(a.x + a.width, y), point(b.x, y)] : [point(a.x, y), point(b.x + b.width, y)];
  }
  if (overlapX > 24) {
    const x = Math.max(a.x, b.x) + overlapX / 2;
    return by > ay ? [point(x, a.y + a.height), point(x, b.y)] : [point(x, a.y), point(x, b.y + b.height)];
  }
  const isWide = Math.abs(bx - ax) - (a.width + b.width) / 2 >= Math.abs(by - ay) - (a.height + b.height) / 2;
  if (isWide) {
    const [start, end] = bx > ax ? [a.x + a.width, b.x] : [a.x, b.x + b.width];
    const middle = (start + end) / 2;
    return [point(start, ay), point(middle, ay), point(middle, by), point(end, by)];
  }
  const [start, end] = by > ay ? [a.y + a.height, b.y] : [a.y, b.y + b.height];
  const middle = (start + end) / 2;
  return [point(ax, start), point(ax, middle), point(bx, middle), point(bx, end)];
}

/** Over the longest stretch. */
function labelBox(points: readonly Point[], { label }: MadeEdge): ModelBox {
  let best = 1;
  const length = (at: number) => Math.hypot(points[at]!.x - points[at - 1]!.x, points[at]!.y - points[at - 1]!.y);
  for (let at = 2; at < points.length; at++) if (length(at) > length(best)) best = at;
  const [a, b] = [points[best - 1]!, points[best]!];
  const width = Math.max(20, Math.min(180, label.length * 6.6 + 8));
  return { x: (a.x + b.x) / 2 - width / 2, y: (a.y + b.y) / 2 - 8, width, height: 16 };
}

const point = (x: number, y: number): Point => ({ x, y });
