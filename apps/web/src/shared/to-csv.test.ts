import { describe, expect, it } from 'vitest';
import { toCsv } from './to-csv';

describe('toCsv', () => {
  it('quotes what needs quotes', () => {
    expect(
      toCsv([
        ['a', 'b,c'],
        ['say "x"', 'two\nlines'],
      ]),
    ).toBe('\uFEFFa,"b,c"\r\n"say ""x""","two\nlines"\r\n');
  });

  it.each(['=1+1', '+1', '-1', '@x', '\tx'])('lets no spreadsheet run %j', (text) => {
    expect(toCsv([[text]])).toContain(`'${text}`);
  });
});
