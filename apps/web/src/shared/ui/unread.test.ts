import { describe, expect, it } from 'vitest';
import { readPlaces, unreadKey, unreadPlaces } from './unread';

describe('rows that were chosen before they were read', () => {
  it('are told by their places, whatever else is chosen', () => {
    expect(unreadPlaces(['a', unreadKey(12), 'b', unreadKey(3)])).toEqual([3, 12]);
    expect(unreadPlaces(['a', 'b'])).toEqual([]);
  });

  it('are read and no others are taken, in as few windows as hold them', async () => {
    const asked: number[] = [];
    const read = async (offset: number, limit: number) => {
      asked.push(offset);
      return Array.from({ length: Math.max(0, Math.min(limit, 95 - offset)) }, (_, at) => `row ${offset + at}`);
    };
    expect(await readPlaces([3, 4, 41, 94, 99], 20, read)).toEqual(['row 3', 'row 4', 'row 41', 'row 94']);
    expect(asked).toEqual([0, 40, 80]);
  });
});
