import type { DrawnBody, DrawnRoute, DrawnShape } from './drawn.js';

export const drawingChangeSorts = ['came', 'went', 'moved', 'changed'] as const;

/** One difference between two versions of a drawing. Indices are -1 where that version has none. */
export interface DrawingChange {
  sort: (typeof drawingChangeSorts)[number];
  what: 'shape' | 'line';
  before: number;
  after: number;
  name: string;
}

type Drawn = Pick<DrawnBody, 'shapes' | 'routes'>;

/** What differs between a drawing and a newer version of it: shapes and lines are the same by what the file calls them, else by the element that they show. */
export function compareDrawn(before: Drawn, after: Drawn): DrawingChange[] {
  return [
    ...compareParts(before.shapes, after.shapes, 'shape', { name: nameOf, place: placeOf, says: saysOf }),
    ...compareParts(before.routes, after.routes, 'line', {
      name: (route, { shapes }) => route.label || `${shapes[route.from]?.name ?? ''} – ${shapes[route.to]?.name ?? ''}`,
      place: ({ points }) => JSON.stringify(points.map(({ x, y }) => [x, y])),
      says: ({ element, label, dashed, start, end, startText, endText }) => JSON.stringify([element, label, dashed, start, end, startText, endText]),
    }),
  ];

  function compareParts<Part extends DrawnShape | DrawnRoute>(
    old: readonly Part[],
    now: readonly Part[],
    what: DrawingChange['what'],
    { name, place, says }: { name: (part: Part, drawn: Drawn) => string; place: (part: Part) => string; says: (part: Part) => string },
  ): DrawingChange[] {
    const changes: DrawingChange[] = [];
    const matched = match(old, now);
    const met = new Set(matched);
    now.forEach((part, index) => {
      const own = matched[index]!;
      const change = (sort: DrawingChange['sort']) => changes.push({ sort, what, before: own, after: index, name: name(part, after) });
      if (own < 0) change('came');
      else if (says(old[own]!) !== says(part)) change('changed');
      else if (place(old[own]!) !== place(part)) change('moved');
    });
    old.forEach((part, index) => {
      if (!met.has(index)) changes.push({ sort: 'went', what, before: index, after: -1, name: name(part, before) });
    });
    return changes;
  }
}

/** Of each new part the old one that it is, or -1. */
function match(old: readonly { id: string; element: string }[], now: readonly { id: string; element: string }[]): number[] {
  const byId = new Map(old.map(({ id }, index) => [id, index]));
  const found = now.map(({ id }) => byId.get(id) ?? -1);
  const taken = new Set(found);
  const byElement = new Map<string, number[]>();
  old.forEach(({ element }, index) => {
    if (element && !taken.has(index)) byElement.set(element, [...(byElement.get(element) ?? []), index]);
  });
  return found.map((index, at) => (index >= 0 ? index : (byElement.get(now[at]!.element)?.shift() ?? -1)));
}

const nameOf = ({ name, keyword }: DrawnShape) => name || keyword || 'a shape';
const placeOf = ({ x, y, width, height }: DrawnShape) => [x, y, width, height].join(' ');
const saysOf = ({ element, figure, name, keyword, parts, style, folded, sign }: DrawnShape) =>
  // Part by part: a database gives keys back in an order of its own.
  JSON.stringify([
    element,
    figure,
    name,
    keyword ?? '',
    (parts ?? []).map(({ title, lines }) => [title, lines]),
    [style?.fill, style?.line, style?.font],
    folded ?? false,
    sign ?? '',
  ]);

/** The two versions as one drawing, at a point between them: 0 is the older, 1 the newer. What moved lies on its way; what came or went is there on its own side. */
export function blendDrawn(before: Drawn, after: Drawn, at: number): Drawn & { shapeOf: { before: number; after: number }[] } {
  const matched = match(before.shapes, after.shapes);
  const met = new Set(matched);
  const shapes: DrawnShape[] = [];
  const shapeOf: { before: number; after: number }[] = [];
  const placed = new Map<number, number>();
  after.shapes.forEach((shape, index) => {
    const own = matched[index]!;
    if (own < 0 && at < 0.5) return;
    const old = before.shapes[own];
    const said = at < 0.5 && old ? old : shape;
    const between = (from: number, to: number) => from + (to - from) * at;
    placed.set(index, shapes.length);
    shapes.push({
      ...said,
      ...(old && { x: between(old.x, shape.x), y: between(old.y, shape.y), width: between(old.width, shape.width), height: between(old.height, shape.height) }),
      inside: placed.get(shape.inside) ?? -1,
    });
    shapeOf.push({ before: own, after: index });
  });
  if (at < 0.5)
    before.shapes.forEach((shape, index) => {
      if (met.has(index)) return;
      shapes.push({ ...shape, inside: -1 });
      shapeOf.push({ before: index, after: -1 });
    });
  return { shapes, routes: at < 0.5 ? before.routes : after.routes, shapeOf };
}
