import { describe, expect, it } from 'vitest';
import type { SourceCell } from '../source/document.js';
import { writeTextTable } from './text-table.js';

const cell = (text: string, more: Partial<SourceCell> = {}): SourceCell => ({ text, html: text, span: 1, ...more });

describe('writeTextTable', () => {
  it('writes cells that go over columns and rows as one', () => {
    const wide = cell('b', { span: 2 });
    expect(
      writeTextTable([
        [cell('a'), wide],
        [cell('a', { continued: true }), cell('c'), cell('d')],
        [cell('a', { continued: true }), { ...wide, text: 'e', html: 'e' }],
      ]),
    ).toBe('<table><tbody><tr><td rowspan="3">a</td><td colspan="2">b</td></tr><tr><td>c</td><td>d</td></tr><tr><td colspan="2">e</td></tr></tbody></table>');
  });

  it('keeps a cell that goes on but says something else', () => {
    expect(writeTextTable([[cell('a', { heads: true })], [cell('b', { continued: true })]])).toBe(
      '<table><tbody><tr><th>a</th></tr><tr><td>b</td></tr></tbody></table>',
    );
  });
});
