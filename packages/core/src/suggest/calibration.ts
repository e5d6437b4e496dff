/**
 * How many of those with at least such a score were right, never less for a higher score: isotonic regression by pooling neighbours (Zadrozny and
 * Elkan, "Transforming classifier scores", 2002). Pools hold at least `least` cases, and one more that was wrong, so that few cases promise little.
 */
export class Calibration {
  private readonly from: number[] = [];
  private readonly chance: number[] = [];

  constructor(cases: readonly { score: number; isRight: boolean }[], least = 10) {
    const pools: { from: number; right: number; all: number }[] = [];
    const sorted = cases.toSorted((a, b) => a.score - b.score);
    for (const { score, isRight } of sorted) {
      const last = pools.at(-1);
      if (last && last.all < least) {
        last.all++;
        if (isRight) last.right++;
      } else pools.push({ from: score, right: isRight ? 1 : 0, all: 1 });
    }
    const rest = pools.length > 1 && pools.at(-1)!.all < least ? pools.pop() : undefined;
    if (rest) {
      pools.at(-1)!.right += rest.right;
      pools.at(-1)!.all += rest.all;
    }
    const settled: typeof pools = [];
    for (const pool of pools) {
      settled.push({ ...pool });
      for (let above = settled.at(-1)!, below = settled.at(-2); below && below.right / below.all >= above.right / above.all; below = settled.at(-2)) {
        below.right += above.right;
        below.all += above.all;
        settled.pop();
        above = below;
      }
    }
    for (const { from, right, all } of settled) {
      this.from.push(from);
      this.chance.push(right / (all + 1));
    }
  }

  /** From 0 to 1. */
  of(score: number): number {
    let at = this.from.length - 1;
    while (at > 0 && this.from[at]! > score) at--;
    return this.chance[at] ?? 0;
  }
}
