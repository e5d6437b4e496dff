import { type DrawnRoute, type DrawnShape, layTree } from '@coomb/core';
import type { Trace } from './queries';

type Place = Trace['upstream'][number];

export interface TreeDrawing {
  shapes: DrawnShape[];
  routes: DrawnRoute[];
  /** Place of each shape; the root stands first, once. */
  placeOf: Place[];
}

const WIDTH = 210;
const HEIGHT = 54;
const GAPS = { along: 124, across: 14 };
/** Where lines leave the way that they have in common. */
const FORK = 18;

/** Places moved by hand: how far from where they would stand. Their branch follows them. */
export type Offsets = Readonly<Record<string, { x: number; y: number }>>;

/** Both sides of a trace tree as one drawing: upstream to the left of the item, downstream to the right. */
export function buildTreeDrawing({ upstream, downstream }: Trace, kindLabel: (kind: string) => string, offsets: Offsets = {}): TreeDrawing {
  const shapes: DrawnShape[] = [];
  const routes: DrawnRoute[] = [];
  const placeOf: Place[] = [];
  const sides = [
    { places: downstream, turn: 1 },
    { places: upstream, turn: -1 },
  ];
  for (const { places, turn } of sides) {
    const { along, across } = layTree(
      places.map(({ parent }) => ({ parent, along: WIDTH, across: HEIGHT })),
      GAPS,
    );
    const shapeOf: number[] = [];
    const moved: { x: number; y: number }[] = [];
    places.forEach((place, index) => {
      const up = place.parent < 0 ? { x: 0, y: 0 } : moved[place.parent]!;
      const own = offsets[place.key] ?? { x: 0, y: 0 };
      moved.push({ x: up.x + own.x, y: up.y + own.y });
      if (index === 0 && shapes.length > 0) return void shapeOf.push(0);
      shapeOf.push(shapes.length);
      placeOf.push(place);
      shapes.push({
        ...{ id: place.key, element: place.item.id, item: place.item.id, inside: -1, figure: 'box' },
        ...{ x: turn * along[index]! + moved[index]!.x, y: across[index]! - across[0]! + moved[index]!.y, width: WIDTH, height: HEIGHT },
        name: place.item.title,
        keyword: `${place.item.reference} · ${place.again >= 0 ? 'shown before' : kindLabel(place.item.kind)}`,
      });
    });
    places.forEach((place, index) => {
      if (place.parent < 0) return;
      const [a, b] = [shapes[shapeOf[place.parent]!]!, shapes[shapeOf[index]!]!];
      const [start, end] = turn > 0 ? [a.x + WIDTH, b.x] : [a.x, b.x + WIDTH];
      const [from, to] = [a.y + HEIGHT / 2, b.y + HEIGHT / 2];
      const bend = start + turn * FORK;
      routes.push({
        ...{ id: `to ${place.key}`, element: place.link ?? '', from: shapeOf[place.parent]!, to: shapeOf[index]! },
        points: from === to ? [point(start, from), point(end, to)] : [point(start, from), point(bend, from), point(bend, to), point(end, to)],
        ...{ dashed: place.suspect || place.through !== null, start: 'none', end: 'none', label: place.phrase },
        // On the stretch that is this link's alone.
        labelBox: { x: Math.min(bend, end), y: to - 7, width: Math.abs(end - bend), height: 14 },
      });
    });
  }
  return { shapes, routes, placeOf };
}

const point = (x: number, y: number) => ({ x, y });
