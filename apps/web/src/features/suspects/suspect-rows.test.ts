import type { SuspectGroup } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { buildSuspectRows, nearestLink } from './suspect-rows';

const group = (...links: string[]) => ({ links: links.map((id) => ({ id })) }) as unknown as SuspectGroup;

describe('the suspect queue', () => {
  const rows = buildSuspectRows([group('a', 'b'), group('c')]);

  it('has each change, and below it its links', () => {
    expect(rows.map(({ link }) => link?.id ?? 'change')).toEqual(['change', 'a', 'b', 'change', 'c']);
  });

  it('goes on at the nearest link that is left, and never rests on a change', () => {
    expect([0, 1, 2, 3, 4, 5, 9].map((at) => rows[nearestLink(rows, at)]!.link?.id)).toEqual(['a', 'a', 'b', 'c', 'c', 'c', 'c']);
    expect(nearestLink([], 3)).toBe(0);
  });
});
