import { describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { findMove } from './find-move';

/**
 * A, B (with B1, B2), C.
 */
const outline = outlineOf([{ reference: 'A' }, { reference: 'B' }, { reference: 'B1', parent: 1 }, { reference: 'B2', parent: 1 }, { reference: 'C' }]);
const rows = [0, 1, 2, 3, 4];

describe('findMove', () => {
  it.each([
    ['up', 'C', 4, { parent: null, after: 'id0' }],
    ['up', 'B to the front', 1, { parent: null, after: null }],
    ['down', 'A behind B', 0, { parent: null, after: 'id1' }],
    ['down', 'B1 behind B2', 2, { parent: 'id1', after: 'id3' }],
    ['in', 'C below B, as the last', 4, { parent: 'id1', after: 'id3' }],
    ['in', 'B below A, the first there', 1, { parent: 'id0', after: null }],
    ['out', 'B1 beside B', 2, { parent: null, after: 'id1' }],
  ] as const)('%s: %s', (wish, _, position, target) => {
    expect(findMove(outline, rows, position, wish)).toEqual(target);
  });

  it.each([
    ['up', 0],
    ['down', 4],
    ['in', 0],
    ['in', 2],
    ['out', 4],
  ] as const)('cannot go %s from row %i', (wish, position) => {
    expect(findMove(outline, rows, position, wish)).toBeUndefined();
  });
});
