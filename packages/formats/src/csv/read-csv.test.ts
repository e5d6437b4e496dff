import { describe, expect, it } from 'vitest';
import { decodeText, readCsv } from './read-csv.js';

const read = (text: string | Uint8Array) => readCsv(typeof text === 'string' ? Buffer.from(text) : text, 'tests.csv').sheets[0]!;

describe('readCsv', () => {
  it.each([
    ['commas', 'a,b\n1,2'],
    ['semicolons', 'a;b\n1;2'],
    ['tabs', 'a\tb\n1\t2'],
    ['bars', 'a|b\n1|2'],
    ['a byte order mark', '\uFEFFa,b\n1,2'],
    ['line ends of the other kind', 'a,b\r\n1,2'],
  ])('reads %s', (_, text) => {
    expect(read(text)).toMatchObject({
      name: 'tests',
      rows: [
        ['a', 'b'],
        ['1', '2'],
      ],
    });
  });

  it('keeps line ends and separators inside quotes', () => {
    expect(read('a,b\n"1\n2","x, ""y"""').rows[1]).toEqual(['1\n2', 'x, "y"']);
  });

  it('reads UTF-16 and Windows-1252', () => {
    const wide = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('Größe,m³\n1,2', 'utf16le')]);
    expect(read(wide).rows[0]).toEqual(['Größe', 'm³']);
    expect(decodeText(Buffer.from('Name,Value\n1,2', 'utf16le'))).toBe('Name,Value\n1,2');
    expect(decodeText(Buffer.from('Name,Value\n1,2', 'utf16le').swap16())).toBe('Name,Value\n1,2');
    expect(decodeText(Buffer.from([0x47, 0x72, 0xf6, 0xdf, 0x65]))).toBe('Größe');
  });

  it('names a quote that is never closed', () => {
    const { issues } = readCsv(Buffer.from('a,b\n"open,2'), 'x.csv');
    expect(issues).toMatchObject([{ code: 'csv-syntax', at: 'line 2' }]);
  });
});
