import { defaultScheme } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { findSteps, numberOfStep } from './step-number';

const kindOf = (id: string) => defaultScheme.kinds.findIndex((kind) => kind.id === id);
/** A use case of two steps, the second of which has two of its own, then a note and a third step; another use case with a step. */
const outline = {
  kind: ['useCase', 'step', 'step', 'step', 'step', 'information', 'step', 'useCase', 'step'].map(kindOf),
  parent: [-1, 0, 0, 2, 2, 0, 0, -1, 7],
  heading: [0, 0, 0, 0, 0, 0, 0, 0, 0],
};

describe('steps of a use case', () => {
  it('are those directly below it, in order', () => {
    expect(findSteps(defaultScheme, outline, 0)).toEqual([1, 2, 6]);
    expect(findSteps(defaultScheme, outline, 2)).toEqual([3, 4]);
    expect(findSteps(defaultScheme, outline, 7)).toEqual([8]);
  });

  it('are numbered, steps of steps too; what is no step has no number', () => {
    expect(outline.kind.map((_, row) => numberOfStep(defaultScheme, outline, row))).toEqual(['', '1', '2', '2.1', '2.2', '', '3', '', '1']);
  });
});
