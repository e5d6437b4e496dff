import { describe, expect, it } from 'vitest';
import type { Trace } from './queries';
import { buildTreeDrawing } from './tree-drawing';

type Place = Trace['upstream'][number];
const place = (key: string, parent: number, more: Partial<Place> = {}): Place =>
  ({
    key,
    parent,
    item: { id: key, reference: key.toUpperCase(), title: `Item ${key}`, kind: 'need' },
    phrase: 'leads to',
    link: key,
    suspect: false,
    through: null,
    usage: null,
    again: -1,
    hidden: 0,
    ...more,
  }) as unknown as Place;
const trace: Trace = {
  upstream: [place('u', -1), place('u1', 0), place('u2', 0, { through: ['travel'] })],
  downstream: [place('d', -1), place('d1', 0, { suspect: true }), place('d1 2', 1, { again: 0 })],
  isCut: false,
};

describe('a trace tree as a drawing', () => {
  const { shapes, routes, placeOf } = buildTreeDrawing(trace, (kind) => kind);

  it('has the item once, upstream to its left and downstream to its right', () => {
    expect(shapes.map(({ id }) => id)).toEqual(['d', 'd1', 'd1 2', 'u1', 'u2']);
    expect(placeOf.map(({ key }) => key)).toEqual(['d', 'd1', 'd1 2', 'u1', 'u2']);
    const [root, right, further, left] = shapes;
    expect(right!.x).toBeGreaterThan(root!.x + root!.width);
    expect(further!.x).toBeGreaterThan(right!.x + right!.width);
    expect(left!.x + left!.width).toBeLessThan(root!.x);
  });

  it('dashes what only follows from what is inside', () => {
    expect(routes.map(({ id, dashed }) => [id, dashed])).toEqual([
      ['to d1', true],
      ['to d1 2', false],
      ['to u1', false],
      ['to u2', true],
    ]);
  });

  it('leads lines from border to border, dashed where a link is suspect', () => {
    const line = routes.find(({ id }) => id === 'to d1')!;
    expect(line).toMatchObject({ from: 0, to: 1, dashed: true, label: 'leads to' });
    expect(line.points[0]!.x).toBe(shapes[0]!.x + shapes[0]!.width);
    expect(line.points.at(-1)!.x).toBe(shapes[1]!.x);
    const back = routes.find(({ id }) => id === 'to u1')!;
    expect(back.points[0]!.x).toBe(shapes[0]!.x);
    expect(back.points.at(-1)!.x).toBe(shapes[3]!.x + shapes[3]!.width);
  });

  it('says what was shown before', () => expect(shapes[2]!.keyword).toBe('D1 2 · shown before'));

  it('lets a branch follow what is moved by hand', () => {
    const moved = buildTreeDrawing(trace, (kind) => kind, { d1: { x: 30, y: -20 } }).shapes;
    expect([moved[1]!.x - shapes[1]!.x, moved[1]!.y - shapes[1]!.y]).toEqual([30, -20]);
    expect([moved[2]!.x - shapes[2]!.x, moved[2]!.y - shapes[2]!.y]).toEqual([30, -20]);
    expect(moved[3]).toEqual(shapes[3]);
  });
});
