import type { DrawingScene } from './drawing-scene.js';
import type { DrawnRoute, DrawnShape } from './drawn.js';
import { paintRoute } from './paint-route.js';
import { paintShape } from './paint-shape.js';
import type { Paper, Pen } from './pen.js';
import { SvgPen } from './svg-pen.js';

/** A drawing as a file of SVG, whole. `fillOf` gives fills by a colour key. */
export function writeDrawing(
  scene: DrawingScene,
  title: string,
  paper: Paper,
  measure: Pen['measure'],
  fillOf: (shape: DrawnShape) => string | undefined = () => undefined,
): string {
  const pen = new SvgPen(measure);
  const holding = findHolding(scene.shapes);
  const isFrame = (index: number) => holding.has(index);
  scene.shapes.forEach((shape, index) => {
    if (isFrame(index)) paintNamed(pen, paper, shape, true, fillOf(shape), scene.shapes[shape.inside]);
  });
  for (const route of scene.routes) paintRoute(pen, paper, route, 3, groundOf(scene.shapes, paper, route));
  scene.shapes.forEach((shape, index) => {
    if (!isFrame(index)) paintNamed(pen, paper, shape, false, fillOf(shape), scene.shapes[shape.inside]);
  });
  return pen.finish(scene.bounds, paper.ground, title);
}

function paintNamed(pen: SvgPen, paper: Paper, shape: DrawnShape, holds: boolean, fill: string | undefined, holder: DrawnShape | undefined): void {
  pen.begin(shape.name);
  paintShape(pen, paper, shape, 3, holds, fill, holder);
  pen.end();
}

/** What a route lies on: the inside of what holds both its ends, or the ground. */
export function groundOf(shapes: readonly DrawnShape[], paper: Paper, { from, to }: Pick<DrawnRoute, 'from' | 'to'>): string {
  const [a, b] = [shapes[from], shapes[to]];
  return (a && (a.inside >= 0 || a.figure === 'pool')) || (b && b.inside >= 0) ? paper.inside : paper.ground;
}

const SMALL = new Set(['port', 'pin', 'execution', 'event', 'exit']);

/** Shapes that others lie in, their ports and pins aside: they are painted below the routes. */
export function findHolding(shapes: readonly Pick<DrawnShape, 'inside' | 'figure'>[]): Set<number> {
  const holding = new Set<number>();
  for (const { inside, figure } of shapes) if (inside >= 0 && !SMALL.has(figure)) holding.add(inside);
  return holding;
}
