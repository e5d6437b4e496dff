import { describe, expect, it } from 'vitest';
import type { Use } from './queries';
import { buildRows, keyOf, nameOf } from './use-rows';

const use = (path: string[], rows = 0): Use =>
  ({ item: { title: path.at(-1) }, type: null, path, rows, below: rows, repeats: false, here: 0, everywhere: 0, elsewhere: 0 }) as unknown as Use;

describe('uses in sight', () => {
  const root = use(['site'], 2);
  const below = new Map([
    ['site', [use(['site', 'east', 'gate'], 1), use(['site', 'west', 'gate'], 1)]],
    ['site,west,gate', [use(['site', 'west', 'gate', 'drive'])]],
  ]);

  it('are those below what is unfolded, in their order', () => {
    const rows = buildRows(root, new Set(['site', 'site,west,gate']), (key) => below.get(key));
    expect(rows.map(({ key, depth, open }) => [key, depth, open])).toEqual([
      ['site', 0, true],
      ['site,east,gate', 1, false],
      ['site,west,gate', 1, true],
      ['site,west,gate,drive', 2, false],
    ]);
  });

  it('wait for what has not come yet', () => expect(buildRows(root, new Set(['site']), () => undefined)).toHaveLength(1));

  it('are known by their path, and called by part and component', () => {
    expect(keyOf(use(['a', 'b']))).toBe('a,b');
    const named = (part: string, component: string | null) => nameOf({ item: { title: part }, type: component && { title: component } } as unknown as Use);
    expect([named('drive', 'Gate Drive'), named('Gate', 'Gate'), named('travel', null)]).toEqual(['drive: Gate Drive', 'Gate', 'travel']);
  });
});
