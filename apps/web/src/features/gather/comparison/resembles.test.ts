import { describe, expect, it } from 'vitest';
import { resembles } from './resembles';

describe('resembles', () => {
  it.each([
    ['Gates.docx', 'Gates rev 2.docx', true],
    ['2 Larkbeck system requirements.docx', 'Larkbeck system requirements v1.3 (2026-11-02).docx', true],
    ['Gates.docx', 'Gates.xlsx', false],
    ['Gates.docx', 'Locks.docx', false],
    ['Gates_v2.csv', 'gates-3.csv', true],
    ['2 Gates.docx', '2 Gates, issue 4.docx', true],
    ['Gates B.docx', 'Gates, issue C.docx', true],
  ])('%s and %s: %s', (older, newer, expected) => {
    const file = (name: string) => ({ name, format: name.slice(-4) });
    expect(resembles(file(older), file(newer))).toBe(expected);
  });
});
