import type { CoverLimits, CoverSolver } from '@coomb/core';
import type { Highs } from 'highs';

/** A cover as the solver is told it: 0 or 1 for each edge that a cut names (or what is between, in parts), of each cut one at least. */
export function writeCover(weight: Float64Array, cuts: readonly Int32Array[], { inParts, atMost }: Omit<CoverLimits, 'seconds'> = {}): string {
  const edges = [...new Set(cuts.flatMap((cut) => [...cut]))].sort((a, b) => a - b);
  const lines = (terms: string[]) => terms.reduce((text, term, at) => `${text}${at > 0 && at % 12 === 0 ? '\n ' : ' '}${term}`, '');
  const cost = lines(edges.map((edge, at) => `${at > 0 ? '+ ' : ''}${weight[edge]} e${edge}`));
  return [
    'Minimize',
    ` obj:${cost}`,
    'Subject To',
    ...cuts.map((cut, at) => ` c${at}:${lines([...cut].map((edge, place) => `${place > 0 ? '+ ' : ''}e${edge}`))} >= 1`),
    ...(atMost === undefined ? [] : [` most:${cost} <= ${atMost}`]),
    // Nothing more than 1 is ever taken: it costs more and covers no better.
    ...(inParts ? [] : ['Binary', lines(edges.map((edge) => `e${edge}`))]),
    'End',
  ].join('\n');
}

export const coverSolver =
  (highs: Pick<Highs, 'solve'>): CoverSolver =>
  (weight, cuts, { seconds, ...how }) => {
    if (cuts.length === 0) return { chosen: [], share: [], bound: 0 };
    const solution = highs.solve(writeCover(weight, cuts, how), { time_limit: Math.max(0.05, seconds), output_flag: false, mip_rel_gap: 0 });
    if (solution.Status === 'Infeasible') return { chosen: [], share: [], bound: Number.POSITIVE_INFINITY };
    if (solution.Status !== 'Optimal') return undefined;
    const taken = Object.entries(solution.Columns).flatMap(([name, column]) => {
      const share = 'Primal' in column ? column.Primal! : 0;
      return share > (how.inParts ? 1e-9 : 0.5) ? [{ edge: Number(name.slice(1)), share: how.inParts ? share : 1 }] : [];
    });
    return { chosen: taken.map(({ edge }) => edge), share: taken.map(({ share }) => share), bound: solution.ObjectiveValue };
  };

/** The solver, with the room that it takes. Its types say the module of the other kind than it is. */
export async function loadSolver(): Promise<Highs> {
  const { default: load } = (await import('highs')) as unknown as { default: () => Promise<Highs> };
  return load();
}
