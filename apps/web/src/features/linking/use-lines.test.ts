import { describe, expect, it } from 'vitest';
import { buildUseLines, holdsIn } from './use-lines';

describe('uses as lines', () => {
  it('say what tells them apart, without the item itself', () => {
    const reply = {
      items: [
        {
          node: 7,
          usages: [
            { path: ['a', 'b', 'x'], says: 'Site › weir › drive › travel' },
            { path: ['a', 'c', 'x'], says: 'Site › lock › drive › travel' },
          ],
        },
        { node: 8, usages: [{ path: ['a', 'y'], says: 'Site › load' }] },
        { node: 9, usages: [{ path: ['a', 'z'], says: 'Site › gone' }] },
      ],
    };
    const lines = buildUseLines(
      reply,
      new Map([
        [7, 70],
        [8, 80],
      ]),
    );
    expect([...lines.keys()]).toEqual([70, 80]);
    expect(lines.get(70)!.map(({ says }) => says)).toEqual(['weir › drive', 'lock › drive']);
    expect(lines.get(80)!.map(({ says }) => says)).toEqual(['Site']);
  });

  it('keep a word each where one use begins as another goes on', () => {
    const usages = [
      { path: ['a', 'x'], says: 'Site › drive' },
      { path: ['a', 'b', 'x'], says: 'Site › weir › drive' },
    ];
    expect(
      buildUseLines({ items: [{ node: 1, usages }] }, new Map([[1, 0]]))
        .get(0)!
        .map(({ says }) => says),
    ).toEqual(['Site', 'Site › weir']);
  });
});

describe('a link of an item that is looked at in a use', () => {
  it('holds there, there as everywhere, or elsewhere', () => {
    const use = ['site', 'weir', 'drive'];
    expect(holdsIn(undefined, ['lock', 'drive'])).toBe('here');
    expect(holdsIn(use, undefined)).toBe('everywhere');
    expect(holdsIn(use, ['weir', 'drive'])).toBe('here');
    expect(holdsIn(use, ['lock', 'drive'])).toBe('elsewhere');
  });
});
