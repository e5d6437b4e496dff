export interface Row {
  what: string;
  size: string;
  /** Median in milliseconds. */
  median: number;
  runs: number;
  /** What it is compared with, and how many times slower (above 1) that is. */
  baseline?: { what: string; median: number };
  goal?: string;
  /** Figures that are no times, instead of the median, and what they are compared with. */
  shown?: string;
  compared?: string;
}

export function medianOf(values: number[]): number {
  return quantile(values, 0.5);
}

/** The value that the share `part` of the values does not exceed. */
export function quantile(values: number[], part: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length * part)]!;
}

/** Short work is repeated until it took about so long, in milliseconds: then clock and compiler no longer count. */
const LONG_ENOUGH = 40;
const MOST_REPEATS = 1000;

/** Median time of a piece of work in milliseconds, after three runs that do not count: the engine compiles while they run. */
export async function time(runs: number, work: () => unknown): Promise<number> {
  return (await timeEach(runs, [work]))[0]!;
}

/** The same for several pieces of work taken in turn, so that a machine that slows down slows all of them. */
export async function timeEach(runs: number, works: readonly (() => unknown)[]): Promise<number[]> {
  for (const work of works) for (let i = 0; i < 3; i++) await work();
  const repeats = works.map(() => 1);
  for (const [index, work] of works.entries()) {
    const start = performance.now();
    await work();
    repeats[index] = Math.max(1, Math.min(MOST_REPEATS, Math.ceil(LONG_ENOUGH / (performance.now() - start))));
  }
  const times = works.map((): number[] => []);
  for (let i = 0; i < runs; i++)
    for (const [index, work] of works.entries()) {
      globalThis.gc?.();
      // The collector forgets compiled code as well: the first call after it pays for that.
      if (repeats[index]! > 1) await work();
      const start = performance.now();
      for (let again = 0; again < repeats[index]!; again++) await work();
      times[index]!.push((performance.now() - start) / repeats[index]!);
    }
  return times.map(medianOf);
}

export function show(milliseconds: number): string {
  if (milliseconds < 0.1) return `${(milliseconds * 1000).toFixed(1)} µs`;
  return milliseconds < 10 ? `${milliseconds.toFixed(2)} ms` : `${Math.round(milliseconds)} ms`;
}

export function format(rows: Row[]): string {
  const lines = rows.map(
    (row) =>
      `| ${row.what} | ${row.size} | ${row.shown ?? show(row.median)} | ${row.runs} | ${row.compared ?? (row.baseline ? `${row.baseline.what}: ${show(row.baseline.median)} (${(row.baseline.median / row.median).toFixed(1)} ×)` : '')} | ${row.goal ?? ''} |`,
  );
  return ['| work | size | median | runs | compared with | goal |', '|---|---|---|---|---|---|', ...lines].join('\n');
}
