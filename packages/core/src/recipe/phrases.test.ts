import { describe, expect, it } from 'vitest';
import type { Phrase } from './document-recipe.js';
import { buildPhrases, findLeadingWords } from './phrases.js';

const derives: Phrase['meaning'] = { as: 'link', linkKind: 'derives', reversed: false };
const values = (words: string, meaning: Phrase['meaning'], text: string) => buildPhrases([{ words, meaning }])(text).map(({ value }) => value);

describe('values that phrases lead to', () => {
  it.each([
    ['SYS-012.', ['SYS-012']],
    ['SYS-012, SYS-014; SYS-020 and SYS-021 for boats.', ['SYS-012, SYS-014; SYS-020 and SYS-021']],
    [': [REQ 4.2.1] & [REQ 4.2.2].', ['[REQ 4.2.1] & [REQ 4.2.2]']],
    ['4.2.1 of the standard', ['4.2.1']],
    ['the needs of boats; see below.', ['the needs of boats']],
    ['', []],
  ])('are references as far as they go: %j', (rest, expected) => {
    expect(values('traces to', derives, `It traces to ${rest}`)).toEqual(expected);
  });

  it('are sentences for fields and titles', () => {
    expect(values('owner', { as: 'field', field: 'owner' }, 'Close. Owner: control room 2. Grey.')).toEqual(['control room 2']);
    expect(values('serves', { ...derives, by: 'title' }, '(serves 2 safe locks)')).toEqual(['2 safe locks']);
  });

  it('are found at every place, by whole words, over line ends, without regard to case', () => {
    expect(values('traces  to', derives, 'TRACES\nTO A-1. It retraces to A-2. Traces to A-3')).toEqual(['A-1', 'A-3']);
    expect(values('a.b (c)', derives, 'a.b (c) A-1, axb (c) A-2')).toEqual(['A-1']);
  });

  it('come with the passage they take', () => {
    const text = 'It traces to: A-1, A-2 always.';
    const [found] = buildPhrases([{ words: 'traces to', meaning: derives }])(text);
    expect(text.slice(found!.start, found!.end)).toBe('traces to: A-1, A-2');
  });
});

describe('words that lead, in a passage pointed at', () => {
  it.each([
    ['Traces to: SYS-012, SYS-014', 'Traces to'],
    [' Part of SYS-012 ', 'Part of'],
    ['in accordance with', 'in accordance with'],
    ['SYS-012', 'SYS-012'],
    ['two\nlines', 'two'],
  ])('%j gives %j', (passage, words) => {
    expect(findLeadingWords(passage)).toBe(words);
  });
});
