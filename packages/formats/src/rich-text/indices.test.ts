import { describe, expect, it } from 'vitest';
import { flattenIndices, writeIndex } from './indices.js';

describe('writeIndex', () => {
  it.each([
    ['2', 'sup', '²'],
    ['-1', 'sup', '⁻¹'],
    ['max', 'sub', 'ₘₐₓ'],
    ['th', 'sup', undefined],
    ['Δ', 'sub', undefined],
  ] as const)('writes %s as %s: %s', (text, index, written) => {
    expect(writeIndex(text, index)).toBe(written);
    if (written) expect(written.normalize('NFKC').replace('−', '-')).toBe(text);
  });
});

it('flattens indices in markup, and leaves those that have no signs', () => {
  expect(flattenIndices('5 kN/m<sup>2</sup>, v<sub>max</sub>, 4<sup>th</sup>')).toBe('5 kN/m², vₘₐₓ, 4<sup>th</sup>');
});
