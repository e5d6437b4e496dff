import { describe, expect, it } from 'vitest';
import { xlsxOf } from '../testing/office-files.js';
import { readXlsx } from './read-xlsx.js';

/** A workbook of one row whose cells have these formats and values. */
async function show(cells: [pattern: string, value: string][]): Promise<string[]> {
  const patterns = [...new Set(cells.map(([pattern]) => pattern))];
  const formats = patterns.map((pattern, at) => `<numFmt numFmtId="${200 + at}" formatCode="${pattern.replaceAll('"', '&quot;')}"/>`).join('');
  const styles = `<styleSheet><numFmts>${formats}</numFmts><cellXfs><xf numFmtId="0"/>${patterns.map((_, at) => `<xf numFmtId="${200 + at}"/>`).join('')}</cellXfs></styleSheet>`;
  const row = cells.map(([pattern, value]) => `<c s="${patterns.indexOf(pattern) + 1}"><v>${value}</v></c>`).join('');
  const { sheets } = await readXlsx(xlsxOf({ A: `<row r="1">${row}</row>` }, { 'xl/styles.xml': styles }));
  return sheets[0]!.rows[0]!;
}

describe('numbers show', () => {
  it.each([
    ['General', '2.2999999999999998', '2.3'],
    ['General', '0.30000000000000004', '0.3'],
    ['General', '12345678901234567', '12345678901234567'],
    ['General', '1E-3', '1E-3'],
    ['0.00', '1.1', '1.10'],
    ['0.00', '3.14159', '3.14159'],
    ['000', '7', '007'],
    ['#,##0.00', '1234567.5', '1234567.50'],
    ['#,##0', '1250.25', '1250.25'],
    ['0%', '0.05', '5%'],
    ['0%', '0.055', '5.5%'],
    ['0.0" m"', '3', '3.0 m'],
    ['0.0;(0.0)', '-3', '-3'],
    ['0;"closed";"open"', '0', '0'],
    ['[Red]0.0', '2.5', '2.5'],
    ['not a format [', '5', '5'],
  ])('in the format %s, %s as %s', async (pattern, value, shown) => {
    expect(await show([[pattern, value]])).toEqual([shown]);
  });
});

describe('days and times show', () => {
  it.each([
    ['yyyy-mm-dd hh:mm', '46000.5', '2025-12-09 12:00'],
    ['d/m/yy h:mm:ss', '46000.500011574', '2025-12-09 12:00:01'],
    ['[$-407]d. mmmm yyyy', '46000', '2025-12-09'],
    ['h:mm', '0.75', '18:00'],
    ['[h]:mm', '1.5', '36:00'],
    ['yyyy', '9e9', '9000000000'],
  ])('in the format %s, %s as %s', async (pattern, value, shown) => {
    expect(await show([[pattern, value]])).toEqual([shown]);
  });
});

describe('what stands beside or behind the cells is told', () => {
  const issuesOf = async (sheet: string, more: Record<string, string> = {}) =>
    (await readXlsx(xlsxOf({ A: sheet }, more))).issues.map(({ code, at, message }) => [code, at, message]);

  it('notes on cells, and pictures', async () => {
    const type = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    const issues = await issuesOf('<row r="1"><c r="A1"><v>1</v></c></row>', {
      'xl/worksheets/_rels/sheet1.xml.rels': `<Relationships><Relationship Id="r1" Type="${type}/comments" Target="../comments1.xml"/><Relationship Id="r2" Type="${type}/drawing" Target="../drawings/drawing1.xml"/></Relationships>`,
      'xl/comments1.xml':
        '<comments><commentList><comment ref="B4"><text><r><t>Agreed </t></r><r><t>in May</t></r></text></comment><comment ref="B5"><text/></comment></commentList></comments>',
    });
    expect(issues).toEqual([
      ['sheet-pictures', 'A', expect.any(String)],
      ['cell-note', 'A!B4', expect.stringContaining('"Agreed in May"')],
    ]);
  });

  it('hidden rows, links, formulas without a value, once each with their places', async () => {
    const rows = [1, 2, 3].map((r) => `<row r="${r}"${r > 1 ? ' hidden="1"' : ''}><c r="C${r}"><f>A1</f></c></row>`).join('');
    const issues = await issuesOf(
      `${rows}</sheetData><hyperlinks><hyperlink ref="B2" r:id="rId1"/><hyperlink ref="B3" location="A!A1"/></hyperlinks><sheetData>`,
    );
    expect(issues.map(([code, at]) => [code, at])).toEqual([
      ['formula-empty', 'A!C1'],
      ['row-hidden', 'A!row 2'],
      ['cell-link', 'A!B2'],
    ]);
    expect(issues[0]![2]).toContain('(3 places: C1, C2, C3)');
  });

  it('words that are struck through, whole or in part', async () => {
    const issues = await issuesOf('<row r="1"><c r="A1" t="s" s="1"><v>0</v></c><c r="B1" t="s"><v>1</v></c><c r="C1" t="s"><v>0</v></c></row>', {
      'xl/styles.xml':
        '<styleSheet><fonts><font/><font><strike/></font></fonts><cellXfs><xf numFmtId="0" fontId="0"/><xf numFmtId="0" fontId="1"/></cellXfs></styleSheet>',
      'xl/sharedStrings.xml': '<sst><si><t>whole</t></si><si><r><rPr><strike/></rPr><t>part</t></r><r><t> of it</t></r></si></sst>',
    });
    expect(issues).toEqual([['cell-struck', 'A!A1', expect.stringContaining('(2 places: A1, B1)')]]);
  });

  it('hidden sheets, which can be chosen all the same', async () => {
    const { sheets, issues } = await readXlsx(
      xlsxOf(
        { A: '', B: '' },
        {
          'xl/workbook.xml': '<workbook xmlns:r="r"><sheets><sheet name="A" r:id="rId1"/><sheet name="B" state="veryHidden" r:id="rId2"/></sheets></workbook>',
        },
      ),
    );
    expect(sheets.map((sheet) => sheet.name)).toEqual(['A', 'B']);
    expect(issues).toMatchObject([{ code: 'sheet-hidden', at: 'B' }]);
  });
});

it('tells the first errors one by one and the others together', async () => {
  const rows = Array.from({ length: 520 }, (_, at) => `<row r="${at + 1}"><c r="A${at + 1}" t="e"><v>#N/A</v></c></row>`).join('');
  const { issues } = await readXlsx(xlsxOf({ A: rows }));
  expect(issues).toHaveLength(501);
  expect(issues.at(-1)).toMatchObject({ code: 'cell-errors', at: 'A!A501', message: expect.stringContaining('20 places') });
});

it('reads control characters as they were written', async () => {
  const { sheets } = await readXlsx(
    xlsxOf(
      { A: '<row><c t="s"><v>0</v></c><c t="inlineStr"><is><t>a_x0009_b</t></is></c></row>' },
      { 'xl/sharedStrings.xml': '<sst><si><t>one_x000D_\ntwo _x005F_x000D_</t></si></sst>' },
    ),
  );
  expect(sheets[0]!.rows[0]).toEqual(['one\ntwo _x000D_', 'a\tb']);
});
