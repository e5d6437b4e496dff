import type { MadeGraph } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { address, readDefinition, writeDefinition } from '../../../shared/drawing/made-definition';
import { moveNode } from './use-made';

const node = (key: string, more: object = {}) => ({
  key,
  item: -1,
  name: key,
  keyword: '',
  figure: 'box' as const,
  parts: [],
  branch: -1,
  inside: -1,
  ...more,
});

describe('a drawing that is made here', () => {
  it('is told in an address and read from it; what is no detail is left out', () => {
    const definition = { sort: 'context', about: 'weir', levels: 4, detail: ['fields', 'ports'] } as const;
    const read = readDefinition(address.parse(Object.fromEntries(new URLSearchParams(writeDefinition(definition)))));
    expect(read).toEqual(definition);
    expect(readDefinition(address.parse({ sort: 'flow', detail: 'fields,secrets' })).detail).toEqual(['fields']);
    expect(address.safeParse({ sort: 'spiral' }).success).toBe(false);
  });

  it('keeps of a tree how far something was moved, move upon move', () => {
    const tree: MadeGraph = { nodes: [node('a'), node('b', { branch: 0 })], edges: [], isTree: true, cut: false };
    const once = moveNode(tree, {}, {}, 'b', { x: 10, y: 5 });
    expect(moveNode(tree, once, {}, 'b', { x: -4, y: 1 })).toEqual({ b: { x: 6, y: 6 } });
  });

  it('keeps of others where all stand, and takes along what lies in what is moved', () => {
    const graph: MadeGraph = { nodes: [node('box'), node('in', { inside: 0 }), node('out')], edges: [], isTree: false, cut: false };
    const places = { box: { x: 0, y: 0 }, in: { x: 10, y: 10 }, out: { x: 300, y: 0 } };
    expect(moveNode(graph, {}, places, 'box', { x: 7, y: 0 })).toEqual({ box: { x: 7, y: 0 }, in: { x: 17, y: 10 }, out: { x: 300, y: 0 } });
    expect(moveNode(graph, places, places, 'in', { x: 1, y: 1 })).toEqual({ ...places, in: { x: 11, y: 11 } });
  });
});
