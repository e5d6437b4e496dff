import type { RecipeOutcome } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { describeOutcome, proposePrefix } from './outcome-words';

const draft = (role: 'section' | 'item') => ({ role }) as RecipeOutcome['drafts'][number];
const outcome = (items: number, sections: number, links: number, remarks: number) =>
  ({
    drafts: [...Array.from({ length: items }, () => draft('item')), ...Array.from({ length: sections }, () => draft('section'))],
    links: new Array(links).fill({}),
    issues: new Array(remarks).fill({}),
  }) as RecipeOutcome;

describe('describeOutcome', () => {
  it.each([
    [outcome(1, 0, 0, 0), '1 item, 0 links; nothing doubtful'],
    [outcome(2, 1, 1, 1), '2 items, 1 section, 1 link; 1 remark'],
    [outcome(0, 0, 0, 2), '0 items, 0 links; 2 remarks'],
  ])('%#', (what, words) => {
    expect(describeOutcome(what, what.issues.length)).toBe(words);
  });

  it('counts remarks on the file itself as well', () => {
    expect(describeOutcome(outcome(1, 0, 3, 1), 3)).toContain('3 remarks');
    expect(describeOutcome(outcome(1, 0, 3, 1), 3, 2)).toContain('2 of 3 links');
    expect(describeOutcome(outcome(1, 0, 3, 1), 3, 3)).toContain(', 3 links');
  });
});

describe('proposePrefix', () => {
  it.each([
    [[null, 'GD-0012', 'SYS-1'], 'need', 'GD'],
    [[null, '12'], 'testCase', 'TC'],
    [['VERYLONGPREFIX-1'], 'need', 'VERYLONGPR'],
    [['A-1', 'SYS-1', 'SYS-2'], 'need', 'SYS'],
    [['intro.a', 'items.a', 'types.a'], 'requirement', 'REQ'],
    [[], 'hazard', 'REQ'],
  ])('of %j, items of kind %s, is %s', (references, kind, prefix) => {
    const drafts = references.map((reference) => ({ reference }) as RecipeOutcome['drafts'][number]);
    expect(proposePrefix({ drafts, links: [], issues: [] } as unknown as RecipeOutcome, kind)).toBe(prefix);
  });
});
