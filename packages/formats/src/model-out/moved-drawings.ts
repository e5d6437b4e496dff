import type { DrawnBody, ModelBox, ModelDocument } from '@coomb/core';

/** A drawing as it is kept here, by the identifier that it has in the file. */
export interface KeptDrawing {
  id: string;
  body: Pick<DrawnBody, 'shapes' | 'routes'>;
}

/** Where shapes and lines stand now that stand elsewhere in the file, by their identifiers. */
export interface MovedDrawings {
  boxes: ReadonlyMap<string, ModelBox>;
  points: ReadonlyMap<string, readonly { x: number; y: number }[]>;
}

/** What another partner placed anew since the file came. Shapes that the file has not, or that stand as they did, are none of it. */
export function findMoved(model: ModelDocument, kept: readonly KeptDrawing[]): MovedDrawings {
  const boxes = new Map<string, ModelBox>();
  const points = new Map<string, readonly { x: number; y: number }[]>();
  const byId = new Map(kept.map((drawing) => [drawing.id, drawing.body]));
  for (const drawing of model.drawings) {
    const now = byId.get(drawing.id);
    if (!now) continue;
    const shapes = new Map(now.shapes.map((shape) => [shape.id, shape]));
    for (const { id, x, y, width, height } of drawing.shapes) {
      const one = shapes.get(id);
      if (!one || (one.x === x && one.y === y && one.width === width && one.height === height)) continue;
      boxes.set(id, { x: one.x, y: one.y, width: one.width, height: one.height });
    }
    const routes = new Map(now.routes.map((route) => [route.id, route]));
    for (const { id, points: before } of drawing.routes) {
      const one = routes.get(id);
      if (!one || one.points.length === 0 || sayPoints(one.points) === sayPoints(before)) continue;
      points.set(id, one.points);
    }
  }
  return { boxes, points };
}

const sayPoints = (points: readonly { x: number; y: number }[]) => points.map(({ x, y }) => `${x} ${y}`).join(', ');
