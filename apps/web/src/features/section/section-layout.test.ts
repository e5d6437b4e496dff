import { describe, expect, it } from 'vitest';
import { buildSectionLayout, cellAt, centreOf, dipAt, findRowAt, findRowsIn } from './section-layout';

const range = (from: number, count: number) => Array.from({ length: count }, (_, index) => from + index);

describe('the section', () => {
  const layers = [range(0, 16), range(100, 120), [], range(300, 61)];
  const layout = buildSectionLayout(layers, 1000, 650);

  it('finds every item where it is drawn', () => {
    for (const stripe of layout.stripes)
      for (const [index, row] of stripe.rows.entries()) {
        const { x, y } = cellAt(layout, stripe, index);
        expect(findRowAt(layout, x + layout.cell / 2, y + layout.cell / 2)).toBe(row);
        expect(centreOf(layout, row)).toMatchObject({ x: x + layout.cell / 2, stripe: stripe.layer });
      }
  });

  it('keeps stripes apart and inside the frame', () => {
    layout.stripes.slice(1).forEach((stripe, index) => {
      const above = layout.stripes[index]!;
      expect(stripe.top).toBeGreaterThan(above.top + above.height);
    });
    const last = layout.stripes.at(-1)!;
    expect(last.top + last.height + 26).toBeLessThanOrEqual(650);
  });

  it.each([
    [1000, 690],
    [1640, 960],
  ])('uses the height of %d × %d, and no more', (width, height) => {
    const { stripes, cell } = buildSectionLayout([range(0, 22), range(100, 145), range(300, 32), range(400, 109), range(600, 61)], width, height);
    const last = stripes.at(-1)!;
    expect((last.top + last.height + 26) / height).toBeGreaterThan(0.95);
    expect(last.top + last.height + 26).toBeLessThanOrEqual(height);
    expect(cell).toBeGreaterThanOrEqual(20);
  });

  it('dips in the middle and not at the edges', () => {
    expect(dipAt(layout, 0)).toBeCloseTo(0);
    expect(dipAt(layout, 500)).toBeGreaterThan(20);
    expect(dipAt(layout, 1000)).toBeCloseTo(0);
  });

  it('finds nothing between stripes or beyond the last cell', () => {
    expect(findRowAt(layout, 500, layout.stripes[1]!.top - 8)).toBeUndefined();
    expect(findRowAt(layout, 2, 300)).toBeUndefined();
    expect(centreOf(layout, 999)).toBeUndefined();
  });

  it('brushes exactly the cells a rectangle touches', () => {
    const stripe = layout.stripes[1]!;
    const first = cellAt(layout, stripe, 0);
    const rows = findRowsIn(layout, { left: first.x + 1, top: first.y + 1, right: first.x + layout.cell * 2 + 1, bottom: first.y + layout.cell / 2 });
    expect(rows).toEqual([100, 101, 102]);
    expect(findRowsIn(layout, { left: 0, top: 0, right: 1000, bottom: 650 })).toHaveLength(197);
  });

  it('makes cells smaller until twenty thousand fit', () => {
    const many = buildSectionLayout([range(0, 2000), range(2000, 12_000), range(14_000, 6000)], 1000, 650);
    expect(many.cell).toBeGreaterThanOrEqual(2);
    expect(many.cell).toBeLessThan(8);
    const last = many.stripes.at(-1)!;
    expect(last.top + last.height).toBeLessThanOrEqual(650);
    expect(many.placeOf.size).toBe(20_000);
  });
});
