import type { Coat } from '../register/coat.js';
import type { DrawingScene } from './drawing-scene.js';
import type { DrawnRoute, DrawnShape } from './drawn.js';
import { routeStrength } from './drawn-through.js';
import { paintRoute } from './paint-route.js';
import { paintShape } from './paint-shape.js';
import type { Paper, Pen } from './pen.js';
import { SvgPen } from './svg-pen.js';

/** A drawing as a file of SVG, whole. `coatOf` and `coatOfRoute` give what a colour key says, `strengths` how strongly each shape is drawn, from 0 (not at all) to 1. */
export function writeDrawing(
  scene: DrawingScene,
  title: string,
  paper: Paper,
  measure: Pen['measure'],
  coatOf: (shape: DrawnShape) => Coat | undefined = () => undefined,
  strengths?: ArrayLike<number>,
  coatOfRoute: (route: DrawnRoute) => Coat | undefined = () => undefined,
): string {
  const pen = new SvgPen(measure);
  const holding = findHolding(scene.shapes);
  const strengthOf = (index: number) => strengths?.[index] ?? 1;
  const isFrame = (index: number) => holding.has(index);
  scene.shapes.forEach((shape, index) => {
    if (isFrame(index) && strengthOf(index) > 0) paintNamed(pen, paper, shape, true, coatOf(shape), scene.shapes[shape.inside], strengthOf(index));
  });
  for (const route of scene.routes) {
    const strength = strengths ? routeStrength(route, strengths) : 1;
    if (strength === 0) continue;
    if (strength < 1) pen.begin('', strength);
    paintRoute(pen, paper, route, 3, groundOf(scene.shapes, paper, route), coatOfRoute(route));
    if (strength < 1) pen.end();
  }
  scene.shapes.forEach((shape, index) => {
    if (!isFrame(index) && strengthOf(index) > 0) paintNamed(pen, paper, shape, false, coatOf(shape), scene.shapes[shape.inside], strengthOf(index));
  });
  return pen.finish(scene.bounds, paper.ground, title);
}

function paintNamed(
  pen: SvgPen,
  paper: Paper,
  shape: DrawnShape,
  holds: boolean,
  coat: Coat | undefined,
  holder: DrawnShape | undefined,
  strength: number,
): void {
  pen.begin(shape.name, strength);
  paintShape(pen, paper, shape, 3, holds, coat, holder);
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
