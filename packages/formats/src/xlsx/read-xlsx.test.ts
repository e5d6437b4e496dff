import { describe, expect, it } from 'vitest';
import { xlsxOf } from '../testing/office-files.js';
import { readXlsx } from './read-xlsx.js';

describe('readXlsx', () => {
  it('reads shared, inline, boolean and formula cells by their place', async () => {
    const { sheets } = await readXlsx(
      xlsxOf(
        {
          Tests:
            '<row r="1"><c r="A1" t="s"><v>1</v></c><c r="C1" t="inlineStr"><is><t>in</t><t>line</t></is></c></row><row r="3"><c r="B3" t="b"><v>1</v></c><c r="C3"><f>1+1</f><v>2</v></c><c r="D3" t="str"><v>text</v></c></row>',
        },
        { 'xl/sharedStrings.xml': '<sst><si><t>zero</t></si><si><r><t>rich </t></r><r><t>one</t></r><rPh><t>sound</t></rPh></si></sst>' },
      ),
    );
    expect(sheets).toEqual([{ name: 'Tests', rows: [['rich one', '', 'inline'], [], ['', 'yes', '2', 'text']] }]);
  });

  it('shows dates as dates, by built-in and own formats', async () => {
    const { sheets } = await readXlsx(
      xlsxOf(
        { A: '<row r="1"><c r="A1" s="1"><v>46000</v></c><c r="B1" s="2"><v>46000.5</v></c><c r="C1" s="0"><v>46000</v></c></row>' },
        {
          'xl/styles.xml':
            '<styleSheet><numFmts><numFmt numFmtId="170" formatCode="dd\\.mm\\.yyyy"/></numFmts><cellStyleXfs><xf numFmtId="14"/></cellStyleXfs><cellXfs><xf numFmtId="0"/><xf numFmtId="14"/><xf numFmtId="170"/></cellXfs></styleSheet>',
        },
      ),
    );
    expect(sheets[0]!.rows[0]).toEqual(['2025-12-09', '2025-12-09', '46000']);
  });

  it('keeps indices in signs of plain text', async () => {
    const runs =
      '<r><t>5 kN/m</t></r><r><rPr><vertAlign val="superscript"/></rPr><t>2</t></r><r><t> at v</t></r><r><rPr><vertAlign val="subscript"/></rPr><t>max</t></r>';
    const { sheets } = await readXlsx(
      xlsxOf(
        { A: `<row><c t="s"><v>0</v></c><c t="inlineStr"><is>${runs}</is></c><c t="s"><v>1</v></c></row>` },
        { 'xl/sharedStrings.xml': `<sst><si>${runs}</si><si><t>2</t></si></sst>` },
      ),
    );
    expect(sheets[0]!.rows[0]).toEqual(['5 kN/m² at vₘₐₓ', '5 kN/m² at vₘₐₓ', '2']);
  });

  it('names cells that show an error and reads them as empty', async () => {
    const { sheets, issues } = await readXlsx(xlsxOf({ A: '<row r="1"><c r="A1" t="e"><v>#REF!</v></c></row>' }));
    expect(sheets[0]!.rows).toEqual([]);
    expect(issues).toMatchObject([{ code: 'cell-error', at: 'A!A1', message: expect.stringContaining('#REF!') }]);
  });

  it('knows merged cells, and passes over those that make no sense', async () => {
    const file = xlsxOf({
      A: '<row r="1"><c r="A1"><v>1</v></c></row></sheetData><mergeCells><mergeCell ref="B2:D2"/><mergeCell ref="AA10:AB12"/><mergeCell ref="C3:A1"/><mergeCell ref="x"/><mergeCell/></mergeCells><sheetData>',
    });
    expect((await readXlsx(file)).sheets[0]!.merges).toEqual([
      { top: 1, left: 1, bottom: 1, right: 3 },
      { top: 9, left: 26, bottom: 11, right: 27 },
    ]);
  });

  it('counts dates from 1904 where the workbook does, and leaves numbers that are no day alone', async () => {
    const rows = '<row r="1"><c r="A1" s="0"><v>44538</v></c><c r="B1" s="0"><v>1e300</v></c></row>';
    const file = xlsxOf(
      { A: rows },
      {
        'xl/workbook.xml': '<workbook xmlns:r="r"><workbookPr date1904="1"/><sheets><sheet name="A" sheetId="1" r:id="rId1"/></sheets></workbook>',
        'xl/styles.xml': '<styleSheet><cellXfs><xf numFmtId="14"/></cellXfs></styleSheet>',
      },
    );
    expect((await readXlsx(file)).sheets[0]!.rows[0]).toEqual(['2025-12-09', '1e+300']);
  });

  it('counts cells and rows that carry no place of their own', async () => {
    const { sheets } = await readXlsx(xlsxOf({ A: '<row><c><v>1</v></c><c><v>2</v></c></row><row><c><v>3</v></c></row>' }));
    expect(sheets[0]!.rows).toEqual([['1', '2'], ['3']]);
  });

  it('keeps the order and names of sheets', async () => {
    const { sheets } = await readXlsx(xlsxOf({ Second: '', First: '' }));
    expect(sheets.map((sheet) => sheet.name)).toEqual(['Second', 'First']);
  });
});
