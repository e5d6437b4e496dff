import { describe, expect, it } from 'vitest';
import { buildUuid7 } from './uuid7.js';

const zeros = new Uint8Array(10);

describe('buildUuid7', () => {
  it('gives version 7 and variant 10, with the time in front', () => {
    expect(buildUuid7(0x0123456789ab, zeros)).toBe('01234567-89ab-7000-8000-000000000000');
    expect(buildUuid7(0, new Uint8Array(10).fill(255))).toBe('00000000-0000-7fff-bfff-ffffffffffff');
  });

  it('sorts by time', () => {
    const ids = [3, 1, 2].map((minute) => buildUuid7(1_700_000_000_000 + minute * 60_000, zeros));
    expect([...ids].sort()).toEqual([ids[1], ids[2], ids[0]]);
  });

  it('refuses too little randomness', () => {
    expect(() => buildUuid7(0, new Uint8Array(9))).toThrow('10 random bytes');
  });
});
