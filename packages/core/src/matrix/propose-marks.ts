import type { WayStep } from '../register/register.js';
import type { Scheme } from '../scheme/scheme.js';

/** Longer ways are composed by hand: there would be too many to choose among. */
const MOST_STEPS = 3;

/**
 * Every way by which the scheme lets items of some kinds be linked with items of others, shortest first: directly, and through items of other kinds. A way
 * does not come back to a kind that it was at. Link kinds that are retired are not walked.
 */
export function proposeMarks({ linkKinds }: Scheme, from: readonly string[], to: readonly string[]): WayStep[][] {
  const found: WayStep[][] = [];
  let ways: { way: WayStep[]; at: readonly string[]; seen: ReadonlySet<string> }[] = [{ way: [], at: from, seen: new Set(from) }];
  for (let step = 1; step <= MOST_STEPS; step++) {
    const next: typeof ways = [];
    for (const { way, at, seen } of ways)
      for (const kind of linkKinds)
        for (const end of ['from', 'to'] as const) {
          const [own, others] = end === 'from' ? [kind.fromKinds, kind.toKinds] : [kind.toKinds, kind.fromKinds];
          if (kind.retired || !own.some((one) => at.includes(one))) continue;
          const longer = [...way, { linkKind: kind.id, end }];
          if (others.some((one) => to.includes(one))) found.push(longer);
          const onward = others.filter((one) => !seen.has(one) && !to.includes(one));
          if (onward.length > 0) next.push({ way: longer, at: onward, seen: new Set([...seen, ...onward]) });
        }
    ways = next;
  }
  return found;
}
