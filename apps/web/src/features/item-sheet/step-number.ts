import type { OutlineReply } from '@coomb/contract';
import { hasRole, type Scheme } from '@coomb/core';

type Outline = Pick<OutlineReply, 'kind' | 'parent' | 'heading'>;

const isStep = (scheme: Scheme, outline: Outline, row: number) => outline.heading[row] !== 1 && hasRole(scheme, scheme.kinds[outline.kind[row]!]!.id, 'step');

/** Steps that stand directly below a row, in reading order. */
export function findSteps(scheme: Scheme, outline: Outline, row: number): number[] {
  const steps: number[] = [];
  // What stands below a row follows it.
  for (let at = row + 1; at < outline.parent.length && outline.parent[at]! >= row; at++)
    if (outline.parent[at] === row && isStep(scheme, outline, at)) steps.push(at);
  return steps;
}

/** Which step a row is among those of the same use case: "3", or "2.1" for a step of a step; nothing where it is none. */
export function numberOfStep(scheme: Scheme, outline: Outline, row: number): string {
  if (!isStep(scheme, outline, row)) return '';
  const parent = outline.parent[row]!;
  let number = 1;
  for (let at = row - 1; at > parent; at--) if (outline.parent[at] === parent && isStep(scheme, outline, at)) number++;
  const above = parent >= 0 ? numberOfStep(scheme, outline, parent) : '';
  return above ? `${above}.${number}` : String(number);
}
