import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import { TraceGraph } from '../trace/graph.js';
import { type Lens, seenThrough } from './lens.js';
import type { RegisterGround } from './shows/show.js';

const item = (kind: string, title: string, parent = -1, more: object = {}) => ({
  kind,
  title,
  parent,
  heading: false,
  withdrawn: false,
  collection: 'c',
  reference: title,
  ...more,
});
const items = [
  item('requirement', 'Section', -1, { heading: true }),
  item('requirement', 'Level', 0),
  item('requirement', 'Flow', 0),
  item('requirement', 'Empty', -1, { heading: true }),
  item('testCase', 'Opens'),
  item('requirement', 'Level, gone', -1, { withdrawn: true }),
];
const ground = {
  scheme: defaultScheme,
  graph: TraceGraph.build({ nodes: items.length, from: new Uint32Array(), to: new Uint32Array(), kind: new Uint8Array() }),
  items,
  rowOf: [...items.keys()],
} as unknown as RegisterGround;
const lens = (more: Partial<Lens>): Lens => ({ ...{ kinds: [], others: 'shown', conditions: [], match: 'all', pinned: [], leftOut: [] }, ...more });
const seen = (more: Partial<Lens>) => {
  const shown = seenThrough(ground, lens(more), (id) => (Number(id) < items.length ? Number(id) : undefined));
  return items.flatMap(({ title }, node) => (shown[node] ? [title] : []));
};
const says = (word: string) => [{ way: [], of: 'some' as const, shown: { sort: 'title' }, test: 'says' as const, values: [word] }];

describe('what is seen through a lens', () => {
  it('is what passes, with the sections that it stands in; nothing that is withdrawn', () => {
    expect(seen({ conditions: says('level') })).toEqual(['Section', 'Level']);
    expect(seen({})).toEqual(['Section', 'Level', 'Flow', 'Opens']);
  });

  it('is narrowed for the kinds that it is about; others are shown, or not', () => {
    expect(seen({ kinds: ['requirement'], conditions: says('level') })).toEqual(['Section', 'Level', 'Opens']);
    expect(seen({ kinds: ['requirement'], conditions: says('level'), others: 'hidden' })).toEqual(['Section', 'Level']);
  });

  it('has what is pinned, and not what is left out, whatever conditions say; pinned items alone are all of it', () => {
    expect(seen({ conditions: says('level'), pinned: ['4'], leftOut: ['1'] })).toEqual(['Opens']);
    expect(seen({ pinned: ['2'] })).toEqual(['Section', 'Flow']);
    expect(seen({ pinned: ['5', '99'] })).toEqual([]);
  });
});
