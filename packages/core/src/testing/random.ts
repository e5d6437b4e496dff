/** A small repeatable source of chance (mulberry32), so that a failing case can be run again from its seed. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

export function below(random: () => number, most: number): number {
  return Math.floor(random() * most);
}

export function pick<T>(random: () => number, from: readonly T[]): T {
  return from[below(random, from.length)]!;
}

/** A random graph as plain rows. */
export function randomLinks(random: () => number, nodes: number, links: number, kinds: number): { from: number; to: number; kind: number; suspect: boolean }[] {
  return Array.from({ length: links }, () => ({ from: below(random, nodes), to: below(random, nodes), kind: below(random, kinds), suspect: random() < 0.2 }));
}

export function toColumns(nodes: number, links: { from: number; to: number; kind: number; suspect: boolean }[]) {
  return {
    nodes,
    from: Uint32Array.from(links, (link) => link.from),
    to: Uint32Array.from(links, (link) => link.to),
    kind: Uint8Array.from(links, (link) => link.kind),
    suspect: Uint8Array.from(links, (link) => (link.suspect ? 1 : 0)),
  };
}
