import { seeded } from '@coomb/core/testing';

/** 10 % needs, 45 % requirements, 25 % components, 20 % tests: the mix of a large project. */
export const shares = { need: 0.1, requirement: 0.45, component: 0.25, testCase: 0.2 };

export interface Generated {
  kinds: string[];
  from: Uint32Array;
  to: Uint32Array;
  linkKind: Uint8Array;
}

/** Items in kind order and links that the usual scheme allows between them. `linkKinds` gives the index of each kind by id. */
export function generate(items: number, links: number, linkKinds: Record<string, number>): Generated {
  const random = seeded(42);
  const counts = Object.entries(shares).map(([kind, share]) => [kind, Math.round(items * share)] as const);
  const kinds = counts.flatMap(([kind, count]) => new Array<string>(count).fill(kind));
  const start: Record<string, number> = {};
  let at = 0;
  for (const [kind, count] of counts) {
    start[kind] = at;
    at += count;
  }
  const some = (kind: keyof typeof shares) => start[kind]! + Math.floor(random() * Math.round(items * shares[kind]));
  const from = new Uint32Array(links);
  const to = new Uint32Array(links);
  const linkKind = new Uint8Array(links);
  for (let i = 0; i < links; i++) {
    const chance = random();
    const [kind, a, b] =
      chance < 0.2
        ? (['derives', 'requirement', 'need'] as const)
        : chance < 0.5
          ? (['satisfies', 'component', 'requirement'] as const)
          : chance < 0.85
            ? (['verifies', 'testCase', 'requirement'] as const)
            : (['depends', 'component', 'component'] as const);
    from[i] = some(a);
    do to[i] = some(b);
    while (to[i] === from[i]);
    linkKind[i] = linkKinds[kind]!;
  }
  return { kinds, from, to, linkKind };
}
