import { figure, groupBy, type Issue } from '@coomb/core';

/** As many remarks of one sort as anybody looks through. */
const MOST_KEPT = 1000;

/**
 * The remarks that are kept with a source: where thousands say the same of other places, the first of them, and how many more there were.
 * The file itself is kept whole, and is remarked on anew whenever it is read.
 */
export function keepRemarks(issues: readonly Issue[]): Issue[] {
  if (issues.length <= MOST_KEPT) return [...issues];
  return [...groupBy(issues, ({ severity, code }) => `${severity} ${code}`).values()].flatMap((alike) => {
    const left = alike.length - MOST_KEPT;
    if (left <= 0) return alike;
    const { severity, code, at } = alike[MOST_KEPT]!;
    return [
      ...alike.slice(0, MOST_KEPT),
      { severity, code, at, message: `${figure(left)} more remarks like those above, from here on, are not kept one by one` },
    ];
  });
}
