import type { DrawnRoute, DrawnShape } from './drawn.js';

/** How strongly what a lens does not show is drawn where it lights others, and what holds something that it shows where it shows only these. */
const FAINT = 0.25;
const HOLDS = 0.4;

/**
 * How strongly each shape of a drawing is drawn through a lens, from 0 (not at all) to 1. `isSeen` tells of a shape whether its item is seen;
 * undefined where it shows none, such as a note.
 */
export function shapeStrengths(
  shapes: readonly Pick<DrawnShape, 'inside'>[],
  isSeen: (index: number) => boolean | undefined,
  mode: 'only' | 'lit',
): Float32Array {
  const strengths = Float32Array.from(shapes, (_, index) => {
    const seen = isSeen(index);
    if (seen) return 1;
    return mode === 'lit' || seen === undefined ? FAINT : 0;
  });
  if (mode === 'lit') return strengths;
  // What is seen does not hang in the air: what holds it stays, faintly. Shapes may hold one another in files from elsewhere.
  for (let index = 0; index < shapes.length; index++) {
    if (strengths[index] !== 1) continue;
    for (let at = shapes[index]!.inside, steps = 0; at >= 0 && steps < shapes.length; at = shapes[at]!.inside, steps++)
      strengths[at] = Math.max(strengths[at]!, HOLDS);
  }
  return strengths;
}

/** The shapes with nothing said of those that are not drawn: words are neither found nor gone to where there is no shape. Places stay. */
export function withoutUnseen<Shape extends Pick<DrawnShape, 'name' | 'element' | 'keyword' | 'parts'>>(
  shapes: readonly Shape[],
  strengths: ArrayLike<number>,
): Shape[] {
  return shapes.map((shape, index) => (strengths[index] === 0 ? { ...shape, name: '', element: '', keyword: undefined, parts: undefined } : shape));
}

/** A route is as strong as the weaker of its ends. */
export function routeStrength({ from, to }: Pick<DrawnRoute, 'from' | 'to'>, strengths: ArrayLike<number>): number {
  return Math.min(strengths[from] ?? 1, strengths[to] ?? 1);
}
