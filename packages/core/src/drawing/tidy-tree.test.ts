import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import { layTree, type TreeNode } from './tidy-tree.js';

const gaps = { along: 40, across: 10 };
const boxesOf = (nodes: readonly TreeNode[]) => {
  const { along, across } = layTree(nodes, gaps);
  return nodes.map((node, index) => ({ left: along[index]!, right: along[index]! + node.along, top: across[index]!, bottom: across[index]! + node.across }));
};

describe('layTree', () => {
  it('puts a parent beside the middle of its children', () => {
    const node = (parent: number) => ({ parent, along: 100, across: 20 });
    const boxes = boxesOf([node(-1), node(0), node(0), node(0)]);
    expect(boxes.map(({ left }) => left)).toEqual([0, 140, 140, 140]);
    expect(boxes.slice(1).map(({ top }) => top - boxes[1]!.top)).toEqual([0, 30, 60]);
    expect(boxes[0]!.top).toBe(boxes[2]!.top);
  });

  it('lets nothing overlap and keeps children in their order, in random trees of any sizes', () => {
    const random = seeded(5);
    for (let round = 0; round < 60; round++) {
      const count = 2 + below(random, 120);
      const nodes = Array.from({ length: count }, (_, index) => ({
        parent: index === 0 ? -1 : Math.max(0, index - 1 - below(random, Math.min(index, 8))),
        along: 20 + below(random, 200),
        across: 10 + below(random, 80),
      }));
      const boxes = boxesOf(nodes);
      for (let a = 0; a < count; a++)
        for (let b = a + 1; b < count; b++) {
          const [one, other] = [boxes[a]!, boxes[b]!];
          const isApart = one.right <= other.left + 1e-6 || other.right <= one.left + 1e-6 || one.bottom <= other.top + 1e-6 || other.bottom <= one.top + 1e-6;
          if (!isApart) expect.fail(`round ${round}: ${a} and ${b} overlap`);
        }
      nodes.forEach(({ parent }, index) => {
        const siblings = nodes.flatMap((node, at) => (node.parent === parent ? [at] : []));
        const next = siblings[siblings.indexOf(index) + 1];
        if (parent >= 0 && next !== undefined) expect(boxes[index]!.bottom).toBeLessThanOrEqual(boxes[next]!.top + 1e-6);
      });
    }
  });

  it('goes as deep as a chain does', () => {
    const boxes = boxesOf(Array.from({ length: 20_000 }, (_, index) => ({ parent: index - 1, along: 10, across: 10 })));
    expect(boxes.at(-1)!.left).toBe(19_999 * 50);
  });
});
