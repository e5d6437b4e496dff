import type { OutlineReply } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { chooseRange, toggleChosen } from './choosing';

const outline = { id: ['a', 'b', 'c', 'd', 'e'], parent: [-1, 0, 1, 0, -1] } as unknown as OutlineReply;
const rows = [0, 1, 2, 3, 4];

describe('choosing rows', () => {
  it('takes what stands below along, and lets it go together', () => {
    const chosen = toggleChosen(outline, rows, new Set(['e']), 1);
    expect([...chosen]).toEqual(['e', 'b', 'c']);
    expect([...toggleChosen(outline, rows, chosen, 1)]).toEqual(['e']);
    expect([...toggleChosen(outline, rows, new Set(), 0)]).toEqual(['a', 'b', 'c', 'd']);
  });

  it('lets go of one below and keeps the others', () => {
    expect([...toggleChosen(outline, rows, new Set(['a', 'b', 'c', 'd']), 2)]).toEqual(['a', 'b', 'd']);
  });

  it('takes a range in either direction, beside what was chosen', () => {
    expect([...chooseRange(outline, rows, new Set(['a']), 3, 2)]).toEqual(['a', 'c', 'd']);
    expect([...chooseRange(outline, rows, new Set(['d']), 2, 4)]).toEqual(['d', 'c', 'e']);
  });
});
