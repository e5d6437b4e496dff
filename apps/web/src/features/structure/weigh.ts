import type { readLinkNumbers, readMatrix, ReplyOf } from '@coomb/contract';
import type { Scheme } from '@coomb/core';
import { readWeights } from './address';
import type { Weigh } from './things';

type Marks = ReplyOf<typeof readMatrix>['marks'];
/** More kinds than a scheme has. */
const KINDS = 1000;

/** Weights as an address has them: by marks, or one for each pair of things. */
export function weighByMarks(text: string): Weigh {
  const weights = readWeights(text);
  return { of: (mark) => weights.get(mark) ?? 1, once: text === 'once' };
}

/** Fields with numbers of the kinds of link that are marked, in their order. */
export function numberFields({ linkKinds }: Scheme, marks: Marks): { id: string; label: string }[] {
  const marked = new Set(marks.flatMap(({ way }) => (way.length === 1 ? [way[0]!.linkKind] : [])));
  const fields = linkKinds.flatMap(({ id, fields = [] }) => (marked.has(id) ? fields.filter(({ type }) => type === 'number') : []));
  return [...new Map(fields.map(({ id, label }) => [id, { id, label }])).values()];
}

/** Weights that links say in a field; those that say none, and ways of several steps, weigh one. */
export function weighByNumbers({ linkKinds }: Scheme, marks: Marks, { from, to, kind, number }: ReplyOf<typeof readLinkNumbers>): Weigh {
  const nodes = to.reduce((most, one) => Math.max(most, one), 0) + 1;
  const keyOf = (start: number, end: number, of: number) => (start * nodes + end) * KINDS + of;
  const said = new Map(number.map((one, at) => [keyOf(from[at]!, to[at]!, kind[at]!), one]));
  const steps = marks.map(({ way: [step, next] }) =>
    step && !next ? { kind: linkKinds.findIndex(({ id }) => id === step.linkKind), end: step.end } : undefined,
  );
  return {
    of: (mark, row, column) => {
      const step = steps[mark];
      const [start, end] = step?.end === 'to' ? [column, row] : [row, column];
      return (step && end < nodes ? said.get(keyOf(start, end, step.kind)) : undefined) ?? 1;
    },
    once: false,
  };
}
