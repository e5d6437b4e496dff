import { defaultScheme, findKind, type Issue, type RecipeOutcome } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { describeOutcome, proposePrefix } from './outcome-words';

const draft = (role: 'section' | 'item') => ({ role }) as RecipeOutcome['drafts'][number];
const outcome = (items: number, sections: number, links: number) =>
  ({
    drafts: [...Array.from({ length: items }, () => draft('item')), ...Array.from({ length: sections }, () => draft('section'))],
    links: new Array(links).fill({}),
  }) as RecipeOutcome;
const remarks = (...severities: Issue['severity'][]) => severities.map((severity) => ({ severity }));

describe('describeOutcome', () => {
  it.each([
    [outcome(1, 0, 0), remarks(), '1 item, 0 links; nothing doubtful'],
    [outcome(2, 1, 1), remarks('note'), '2 items, 1 section, 1 link; nothing doubtful, 1 note'],
    [outcome(0, 0, 0), remarks('warning', 'note', 'error', 'note'), '0 items, 0 links; 2 doubtful, 2 notes'],
    [outcome(0, 0, 0), remarks('warning'), '0 items, 0 links; 1 doubtful'],
  ])('%#', (what, issues, words) => {
    expect(describeOutcome(what, issues)).toBe(words);
  });

  it('counts the links that find their other end', () => {
    expect(describeOutcome(outcome(1, 0, 3), [], 2)).toContain('2 of 3 links');
    expect(describeOutcome(outcome(1, 0, 3), [], 3)).toContain(', 3 links');
  });
});

describe('proposePrefix', () => {
  it.each([
    [[null, 'GD-0012', 'GD-0013', 'SYS-1'], 'need', 'GD'],
    [[null, 'UTF-8'], 'need', 'NEED'],
    [[null, '12'], 'testCase', 'TC'],
    [['VERYLONGPREFIX-1'], 'need', 'VERYLONGPR'],
    [['A-1', 'SYS-1', 'SYS-2'], 'need', 'SYS'],
    [['intro.a', 'items.a', 'types.a'], 'requirement', 'REQ'],
    [[], 'hazard', 'ITEM'],
  ])('of %j, items of kind %s, is %s', (references, kind, prefix) => {
    const drafts = references.map((reference) => ({ reference }) as RecipeOutcome['drafts'][number]);
    expect(proposePrefix({ drafts, links: [], issues: [] } as unknown as RecipeOutcome, findKind(defaultScheme, kind))).toBe(prefix);
  });
});
