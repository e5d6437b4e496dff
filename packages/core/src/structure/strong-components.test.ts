import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import { buildDirectedRows, findStrongComponents } from './strong-components.js';

describe('strongly connected components', () => {
  it('put together exactly what reaches each other, in an order in which edges lead to lower numbers', () => {
    const random = seeded(11);
    for (let round = 0; round < 80; round++) {
      const nodes = 1 + below(random, 12);
      const count = below(random, nodes * 2);
      const ends = () => Array.from({ length: count }, () => below(random, nodes));
      const [from, to] = [ends(), ends()];
      const reach = Array.from({ length: nodes }, (_, a) => Array.from({ length: nodes }, (_, b) => a === b));
      for (let edge = 0; edge < count; edge++) reach[from[edge]!]![to[edge]!] = true;
      for (let via = 0; via < nodes; via++)
        for (let a = 0; a < nodes; a++) for (let b = 0; b < nodes; b++) if (reach[a]![via] && reach[via]![b]) reach[a]![b] = true;
      const { of, count: components } = findStrongComponents(nodes, buildDirectedRows(nodes, from, to));
      expect(new Set(of).size).toBe(components);
      for (let a = 0; a < nodes; a++) for (let b = 0; b < nodes; b++) expect(of[a] === of[b]).toBe(reach[a]![b] === true && reach[b]![a] === true);
      for (let edge = 0; edge < count; edge++) expect(of[from[edge]!]).toBeGreaterThanOrEqual(of[to[edge]!]!);
    }
  });

  it('goes through a chain of a hundred thousand without running out of stack', () => {
    const nodes = 100_000;
    const from = Uint32Array.from({ length: nodes }, (_, at) => at);
    const to = Uint32Array.from({ length: nodes }, (_, at) => (at + 1) % nodes);
    expect(findStrongComponents(nodes, buildDirectedRows(nodes, from, to)).count).toBe(1);
  });
});
