import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import { Composition } from './composition.js';

/** Wholes with their parts; each part is a use of another whole, by its name. */
function composed(wholes: Record<string, string[]>) {
  const names = Object.keys(wholes);
  const nodes = new Map(names.map((name, index) => [name, index]));
  const types: number[] = names.map(() => -1);
  const parts: number[][] = names.map(() => []);
  for (const [name, used] of Object.entries(wholes))
    for (const one of used) {
      parts[nodes.get(name)!]!.push(types.length);
      types.push(nodes.get(one)!);
    }
  return { nodes, composition: new Composition({ partsOf: (node) => parts[node] ?? [], typeOf: (node) => types[node]! }), parts, types };
}

describe('a composition', () => {
  it('shows the same component wherever it is used', () => {
    const { nodes, composition, types } = composed({ site: ['gate', 'gate', 'lock'], gate: ['drive'], lock: ['drive', 'drive'], drive: ['motor'], motor: [] });
    const rows = composition.rowsOf(nodes.get('site')!);
    expect(rows.map((row) => [...nodes].find(([, node]) => node === types[row])![0])).toEqual(['gate', 'gate', 'lock']);
    expect(composition.rowsOf(rows[0]!)).toHaveLength(1);
    // Two gates of three rows each, one lock of five.
    expect(composition.below(nodes.get('site')!)).toEqual({ rows: 11, repeats: false });
  });

  it('tells cycles and does not follow them', () => {
    const { nodes, composition } = composed({ a: ['b', 'leaf'], b: ['a'], leaf: [] });
    expect(composition.below(nodes.get('a')!)).toEqual({ rows: 3, repeats: true });
    expect(composition.below(nodes.get('leaf')!)).toEqual({ rows: 0, repeats: false });
    const [first] = composition.rowsOf(nodes.get('b')!);
    expect(composition.repeats(first!, new Set([nodes.get('a')!, nodes.get('b')!]))).toBe(true);
  });

  it('counts what could never be unfolded, and goes as deep as a model does', () => {
    const wholes = Object.fromEntries(Array.from({ length: 5000 }, (_, at) => [`w${at}`, at < 4999 ? [`w${at + 1}`, `w${at + 1}`] : []]));
    const { nodes, composition } = composed(wholes);
    expect(composition.below(nodes.get('w0')!).rows).toBe(Infinity);
    expect(composition.below(nodes.get('w4979')!).rows).toBe(2 ** 21 - 2);
  });

  it('counts as unfolding everything does, in random models', () => {
    const random = seeded(7);
    for (let round = 0; round < 50; round++) {
      const count = 2 + below(random, 12);
      const wholes = Object.fromEntries(
        Array.from({ length: count }, (_, at) => [
          `w${at}`,
          Array.from({ length: below(random, 4) }, () => `w${at + 1 + below(random, Math.max(1, count - at - 1))}`).filter(
            (name) => Number(name.slice(1)) < count,
          ),
        ]),
      );
      const { nodes, composition } = composed(wholes);
      const unfold = (name: string): number => wholes[name]!.reduce((sum, one) => sum + 1 + unfold(one), 0);
      for (const name of nodes.keys()) expect(composition.below(nodes.get(name)!).rows).toBe(unfold(name));
    }
  });
});
