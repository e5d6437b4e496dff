import { below, pick, seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { NodesByReference } from './nodes-by-reference.js';

describe('nodes by reference', () => {
  it.each([1, 2, 3])('answers as a map does, whatever is set, renamed and deleted (seed %i)', (seed) => {
    const random = seeded(seed);
    const references: string[] = [];
    const index = new NodesByReference((node) => references[node]!);
    const map = new Map<string, number>();
    for (let step = 0; step < 4000; step++) {
      const isNew = references.length < 20 || random() < 0.5;
      const node = isNew ? references.length : below(random, references.length);
      if (!isNew) {
        const before = references[node]!.toLowerCase();
        if (map.get(before) === node) {
          map.delete(before);
          index.delete(before);
        }
      }
      references[node] = `${pick(random, ['SYS', 'Sys', 'MOD', 'Ä'])}-${below(random, 3000)}-${node}`;
      map.set(references[node].toLowerCase(), node);
      index.set(references[node].toLowerCase(), node);
    }
    expect([...map.keys()].map((reference) => index.get(reference))).toEqual([...map.values()]);
    for (const missing of ['sys-1', '', 'SYS-1-1', 'mod-9999-1']) expect(index.has(missing)).toBe(map.has(missing));
  });

  it('knows the last of equal references, and finds others past one that is gone', () => {
    const references = ['A', 'a', ...Array.from({ length: 200 }, (_, at) => `R-${at}`)];
    const index = new NodesByReference((node) => references[node]!);
    references.forEach((reference, node) => index.set(reference.toLowerCase(), node));
    expect(index.get('a')).toBe(1);
    for (let at = 0; at < 100; at++) index.delete(`r-${at}`);
    expect([index.get('r-99'), index.get('r-100'), index.get('r-199')]).toEqual([undefined, 102, 201]);
  });
});
