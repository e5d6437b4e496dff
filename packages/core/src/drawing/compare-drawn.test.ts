import { describe, expect, it } from 'vitest';
import { blendDrawn, compareDrawn } from './compare-drawn.js';
import type { DrawnBody, DrawnRoute, DrawnShape } from './drawn.js';

const shape = (id: string, more: Partial<DrawnShape> = {}): DrawnShape => ({
  ...{ id, element: `e ${id}`, item: null, inside: -1, figure: 'box', name: id, x: 0, y: 0, width: 100, height: 50 },
  ...more,
});
const route = (id: string, more: Partial<DrawnRoute> = {}): DrawnRoute => ({
  ...{ id, element: id, from: 0, to: 1, points: [{ x: 0, y: 0 }], dashed: false, start: 'none', end: 'none', label: '' },
  ...more,
});
const drawn = (shapes: DrawnShape[], routes: DrawnRoute[] = []): DrawnBody => ({ sort: 'class', shapes, routes });

const before = drawn([shape('gate'), shape('drive', { x: 200 }), shape('lamp', { x: 400 })], [route('a'), route('b', { label: 'feeds' })]);
const after = drawn(
  [shape('gate', { name: 'Sluice' }), shape('drive', { x: 300, item: 'known here' }), shape('horn')],
  [route('a', { points: [{ x: 9, y: 9 }] }), route('c')],
);

describe('two versions of a drawing', () => {
  it('differ in what came, went, moved and changed', () =>
    expect(compareDrawn(before, after).map(({ sort, what, name, before: old, after: now }) => [sort, what, name, old, now])).toEqual([
      ['changed', 'shape', 'Sluice', 0, 0],
      ['moved', 'shape', 'drive', 1, 1],
      ['came', 'shape', 'horn', -1, 2],
      ['went', 'shape', 'lamp', 2, -1],
      ['moved', 'line', 'Sluice – drive', 0, 0],
      ['came', 'line', 'Sluice – drive', -1, 1],
      ['went', 'line', 'feeds', 1, -1],
    ]));

  it('are the same where only the tool gave its shapes other names', () => {
    const renamed = drawn(
      before.shapes.map((one, at) => ({ ...one, id: `other ${at}` })),
      before.routes.map((one, at) => ({ ...one, id: `line ${at}` })),
    );
    expect(compareDrawn(before, renamed)).toEqual([]);
  });

  it('blend into each other: what moved lies on its way', () => {
    const names = (at: number) => blendDrawn(before, after, at).shapes.map(({ name, x }) => [name, x]);
    expect(names(0)).toEqual([
      ['gate', 0],
      ['drive', 200],
      ['lamp', 400],
    ]);
    expect(names(0.75)).toEqual([
      ['Sluice', 0],
      ['drive', 275],
      ['horn', 0],
    ]);
    expect(blendDrawn(before, after, 1).shapeOf).toEqual([
      { before: 0, after: 0 },
      { before: 1, after: 1 },
      { before: -1, after: 2 },
    ]);
  });
});
