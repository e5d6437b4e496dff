import { seeded } from '../numbers/seeded.js';

export { seeded };

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
