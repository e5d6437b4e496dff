import { describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { buildThreads, depthIn, narrowRows } from './bench-rows';

const outline = outlineOf([
  { reference: 'Chapter', heading: true },
  { reference: 'REQ-1', parent: 0 },
  { reference: 'REQ-2', parent: 0 },
  { reference: 'Other', heading: true },
  { reference: 'REQ-3', parent: 3 },
  { reference: 'TC-1', collection: 1 },
  { reference: 'TC-2', collection: 1 },
]);
const links = (...pairs: [number, number][]) => ({
  seq: 1,
  life: 'one',
  id: pairs.map((_, index) => `l${index}`),
  from: pairs.map(([from]) => from),
  to: pairs.map(([, to]) => to),
  kind: pairs.map(() => 2),
  suspect: pairs.map(() => 1),
  usages: [],
  usagePaths: [],
  fromUsage: [],
  toUsage: [],
});

describe('buildThreads', () => {
  it('draws each link from left to right, whichever way it points', () => {
    expect(buildThreads(outline, links([105, 101], [102, 106]), 0, 1)).toEqual([
      { id: 'l0', left: 1, right: 5, kind: 2, suspect: true, leftIsFrom: false },
      { id: 'l1', left: 2, right: 6, kind: 2, suspect: true, leftIsFrom: true },
    ]);
  });

  it('leaves out links to elsewhere and to items that are gone', () => {
    expect(buildThreads(outline, links([101, 102], [105, 999]), 0, 1)).toEqual([]);
  });

  it('says in which use of which side a link holds only', () => {
    const inUse = { ...links([105, 101], [101, 105]), usages: ['Weir › drive'], usagePaths: [['weir', 'drive']], fromUsage: [-1, 0], toUsage: [0, -1] };
    const told = buildThreads(outline, inUse, 0, 1).map(({ id, leftUse, rightUse, inUse: says }) => ({ id, leftUse, rightUse, says }));
    expect(told).toEqual([
      { id: 'l0', leftUse: ['weir', 'drive'], rightUse: undefined, says: 'Weir › drive' },
      { id: 'l1', leftUse: ['weir', 'drive'], rightUse: undefined, says: 'Weir › drive' },
    ]);
  });
});

describe('narrowRows', () => {
  it('keeps what is wanted with the headings above it, and no empty headings', () => {
    expect(narrowRows(outline, [0, 1, 2, 3, 4], (row) => row === 2)).toEqual([0, 2]);
    expect(narrowRows(outline, [0, 1, 2, 3, 4], () => false)).toEqual([]);
  });

  it('knows how deep a row stands', () => {
    expect([0, 1, 4, 5].map((row) => depthIn(outline, row))).toEqual([0, 1, 1, 0]);
  });
});
