import { defaultScheme, type DrawnShape } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { outlineOf } from '../../../testing/outline';
import { buildLinkBoxes } from './link-boxes';

const shape = (id: string, x: number, item: string | null = id): DrawnShape => ({
  ...{ id, element: id, item, inside: -1, figure: 'box', name: id },
  ...{ x, y: 0, width: 100, height: 60 },
});
const outline = outlineOf([{ reference: 'DRV-1' }, { reference: 'DRV-2' }, { reference: 'REQ-1' }, { reference: 'TC-1' }]);
outline.kind = ['component', 'component', 'requirement', 'testCase'].map((id) => defaultScheme.kinds.findIndex((kind) => kind.id === id));
const link = (other: number, phrase: string) => ({ id: `l${other}`, other, phrase, suspect: false, usage: null });
const drawn = {
  shapesOf: new Map(),
  counts: new Map(),
  rowOf: [0, 1, -1],
  of: new Map([
    [0, [link(2, 'satisfies'), link(3, 'is verified by')]],
    [1, [link(2, 'satisfies')]],
  ]),
};
const drawing = { shapes: [shape('motor', 0), shape('brake', 300), shape('note', 600, null)] };

describe('boxes with the links of shapes', () => {
  it('stand beside every shape that has links, over nothing, joined with it', () => {
    const boxes = buildLinkBoxes(drawing, drawn, outline, defaultScheme, { shown: 'all', layers: [], places: {} });
    expect(boxes.ownerOf).toEqual([0, 1]);
    expect(boxes.shapes[0]!.parts).toEqual([
      { title: 'satisfies', lines: ['REQ-1 REQ-1'] },
      { title: 'is verified by', lines: ['TC-1 TC-1'] },
    ]);
    expect(boxes.routes.map(({ from, to }) => [from, to])).toEqual([
      [0, 3],
      [1, 4],
    ]);
    const all = [...drawing.shapes, ...boxes.shapes];
    for (const [index, a] of all.entries())
      for (const b of all.slice(index + 1)) expect(a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height).toBe(false);
  });

  it('show the layers that are chosen, for the shapes that are asked for', () => {
    const layer = defaultScheme.kinds.find(({ id }) => id === 'testCase')!.layer;
    const boxes = buildLinkBoxes(drawing, drawn, outline, defaultScheme, { shown: 'all', layers: [layer], places: {} });
    expect(boxes.ownerOf).toEqual([0]);
    expect(boxes.shapes[0]!.parts).toEqual([{ title: 'is verified by', lines: ['TC-1 TC-1'] }]);
    expect(buildLinkBoxes(drawing, drawn, outline, defaultScheme, { shown: ['brake'], layers: [], places: {} }).ownerOf).toEqual([1]);
  });

  it('stay where they were put by hand', () => {
    const { shapes } = buildLinkBoxes(drawing, drawn, outline, defaultScheme, { shown: ['motor'], layers: [], places: { motor: { x: -500, y: 90 } } });
    expect([shapes[0]!.x, shapes[0]!.y]).toEqual([-500, 90]);
  });

  it('tell how many more there are than fit', () => {
    const many = { ...drawn, of: new Map([[0, Array.from({ length: 11 }, () => link(2, 'satisfies'))]]) };
    const { shapes } = buildLinkBoxes(drawing, many, outline, defaultScheme, { shown: 'all', layers: [], places: {} });
    expect(shapes[0]!.parts!.at(-1)!.lines).toEqual(['and 3 more']);
  });
});
