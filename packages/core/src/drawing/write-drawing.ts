import type { DrawingScene } from './drawing-scene.js';
import type { DrawnShape } from './drawn.js';
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
    if (isFrame(index)) paintNamed(pen, paper, shape, true, fillOf(shape));
  });
  for (const route of scene.routes) paintRoute(pen, paper, route, 3);
  scene.shapes.forEach((shape, index) => {
    if (!isFrame(index)) paintNamed(pen, paper, shape, false, fillOf(shape));
  });
  return pen.finish(scene.bounds, paper.ground, title);
}

function paintNamed(pen: SvgPen, paper: Paper, shape: DrawnShape, holds: boolean, fill: string | undefined): void {
  pen.begin(shape.name);
  paintShape(pen, paper, shape, 3, holds, fill);
  pen.end();
}

const SMALL = new Set(['port', 'pin', 'execution', 'event', 'exit']);

/** Shapes that others lie in, their ports and pins aside: they are painted below the routes. */
export function findHolding(shapes: readonly Pick<DrawnShape, 'inside' | 'figure'>[]): Set<number> {
  const holding = new Set<number>();
  for (const { inside, figure } of shapes) if (inside >= 0 && !SMALL.has(figure)) holding.add(inside);
  return holding;
}
