import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/random.js';
import { IdIndex, parseIdWords, toIdWords } from './id-index.js';
import { buildUuid7 } from './uuid7.js';

const make = (count: number, seed: number) => {
  const random = seeded(seed);
  return Array.from({ length: count }, (_, i) =>
    buildUuid7(
      1_700_000_000_000 + (i >> 3),
      Uint8Array.from({ length: 10 }, () => Math.floor(random() * 256)),
    ),
  );
};

describe('IdIndex', () => {
  it('finds every id at its row, and no other', () => {
    const ids = make(5000, 1);
    const index = new IdIndex(parseIdWords(ids));
    const words = parseIdWords(ids);
    expect(ids.map((_, row) => index.find(words, row * 4))).toEqual(ids.map((_, row) => row));
    expect(make(500, 2).map((id) => index.find(parseIdWords([id])))).toEqual(new Array(500).fill(-1));
  });

  it('stays quick to tell apart ids that differ in one counter only', () => {
    const ids = Array.from({ length: 70_000 }, (_, i) => `01890003-0000-7000-8000-${i.toString(16).padStart(12, '0')}`);
    const index = new IdIndex(parseIdWords(ids));
    expect(index.find(parseIdWords([ids[69_999]!]))).toBe(69_999);
    expect(index.find(parseIdWords(['01890003-0000-7000-8000-0000ffffffff']))).toBe(-1);
  });

  it('reads words from bytes that do not stand aligned', () => {
    const id = '01890003-0000-7000-8000-00000000002a';
    const bytes = new Uint8Array(19);
    bytes.set(Buffer.from(id.replaceAll('-', ''), 'hex'), 3);
    expect(toIdWords(bytes.subarray(3))).toEqual(parseIdWords([id]));
    expect(toIdWords(Buffer.from(id.replaceAll('-', ''), 'hex'))).toEqual(parseIdWords([id]));
  });

  it.each(['', '01890003', '01890003-0000-7000-8000-0000000000zz', '01890003-0000-7000-8000-00000000002a00'])('refuses %j', (text) => {
    expect(() => parseIdWords([text])).toThrow('is no UUID');
  });

  it('holds nothing when it is empty', () => {
    expect(new IdIndex(new Uint32Array(0)).find(parseIdWords(['01890003-0000-7000-8000-00000000002a']))).toBe(-1);
  });
});
