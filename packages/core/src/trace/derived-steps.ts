import type { TraceStep } from './trace-tree.js';

/** How many things inside an item are looked at. */
const MOST_INSIDE = 500;

/**
 * Steps that follow from what an item is made of: what lies inside it leads there, and the item itself does not by a link of the same kind. One
 * for each end and kind, with everything inside that it goes through; ends that lie inside themselves lead nowhere.
 */
export function deriveSteps(given: readonly TraceStep[], inside: readonly number[], stepsOf: (node: number) => readonly TraceStep[]): TraceStep[] {
  const keyOf = ({ node, kind, reversed }: TraceStep) => `${node} ${kind} ${reversed}`;
  const known = new Set(given.map(keyOf));
  const within = new Set(inside);
  const found = new Map<string, TraceStep & { through: number[] }>();
  for (const inner of inside.slice(0, MOST_INSIDE)) {
    for (const step of stepsOf(inner)) {
      const key = keyOf(step);
      if (known.has(key) || within.has(step.node)) continue;
      const before = found.get(key);
      if (!before) found.set(key, { ...step, through: [inner] });
      else if (!before.through.includes(inner)) before.through.push(inner);
    }
  }
  return [...found.values()];
}
