import type { SourceParagraph, SourceTable } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { cell, docxOf, paragraph, run, table } from '../testing/office-files.js';
import { readDocx } from './read-docx.js';

const read = async (body: string, more: Record<string, string | Uint8Array> = {}) => readDocx(docxOf(body, more));
const first = async (body: string) => (await read(body)).document.blocks[0] as SourceParagraph;
const codes = async (body: string, more = {}) => (await read(body, more)).issues.map((issue) => issue.code);

describe('signs of picture fonts', () => {
  it.each([
    ['F0B3', 'Symbol', '≥'],
    ['F0A3', 'Symbol', '≤'],
    ['00B1', 'Symbol', '±'],
    ['F0B0', 'Symbol', '°'],
    ['F0B4', 'Symbol', '×'],
    ['F0B9', 'Symbol', '≠'],
    ['F0BB', 'Symbol', '≈'],
    ['F06D', 'Symbol', 'μ'],
    ['F057', 'Symbol', 'Ω'],
    ['F044', 'Symbol', 'Δ'],
    ['F0AE', 'Symbol', '→'],
    ['F0B7', 'Symbol', '•'],
    ['F0BC', 'Symbol', '…'],
    ['F0E5', 'Symbol', '∑'],
    ['F0FC', 'Wingdings', '✓'],
    ['F0FE', 'Wingdings', '☑'],
    ['F0E0', 'Wingdings', '→'],
  ])('%s of %s is %s', async (code, font, sign) => {
    expect((await first(paragraph(`${run('a ')}<w:r><w:sym w:font="${font}" w:char="${code}"/></w:r>${run(' b')}`))).text).toBe(`a ${sign} b`);
  });

  it('are read in runs of such a font too', async () => {
    expect((await first(paragraph(run('\uF0B3 5', '<w:rFonts w:ascii="Symbol"/>')))).text).toBe('≥ 5');
    expect((await first(paragraph(run('\uF0FC', '<w:rFonts w:ascii="Wingdings"/>')))).text).toBe('✓');
  });

  it('are told where nobody knows them', async () => {
    const body = paragraph('<w:r><w:sym w:font="Wingdings" w:char="F021"/></w:r>');
    expect((await first(body)).text).toBe('\uFFFD');
    expect(await codes(body)).toEqual(['sign-unknown']);
  });
});

describe('formulas', () => {
  const t = (text: string) => `<m:r><w:rPr/><m:t>${text}</m:t></m:r>`;
  const e = (content: string) => `<m:e>${content}</m:e>`;
  const math = (content: string) => paragraph(`${run('so ')}<m:oMath>${content}</m:oMath>${run(' holds')}`);

  it.each([
    ['fractions', `<m:f><m:num>${t('Q')}</m:num><m:den>${t('v')}</m:den></m:f>`, '(Q)/(v)'],
    ['raised', `<m:sSup>${e(t('m'))}<m:sup>${t('3')}</m:sup></m:sSup>`, 'm<sup>3</sup>'],
    ['lowered and raised', `<m:sSubSup>${e(t('h'))}<m:sub>${t('0')}</m:sub><m:sup>${t('2')}</m:sup></m:sSubSup>`, 'h<sub>0</sub><sup>2</sup>'],
    ['roots', `<m:rad><m:radPr><m:degHide m:val="1"/></m:radPr><m:deg/>${e(t('2gh'))}</m:rad>`, '√(2gh)'],
    ['roots of a degree', `<m:rad><m:deg>${t('3')}</m:deg>${e(t('x'))}</m:rad>`, '<sup>3</sup>√(x)'],
    ['brackets as they are', `<m:d><m:dPr><m:begChr m:val="["/><m:endChr m:val="]"/></m:dPr>${e(t('a'))}${e(t('b'))}</m:d>`, '[a|b]'],
    ['usual brackets', `<m:d>${e(t('a'))}</m:d>`, '(a)'],
    [
      'sums',
      `<m:nary><m:naryPr><m:chr m:val="∑"/></m:naryPr><m:sub>${t('i=1')}</m:sub><m:sup>${t('n')}</m:sup>${e(t('x'))}</m:nary>`,
      '∑<sub>i=1</sub><sup>n</sup>x',
    ],
    ['integrals, whose sign goes without saying', `<m:nary><m:naryPr/><m:sub/><m:sup/>${e(t('f'))}</m:nary>`, '∫f'],
    ['matrices', `<m:m><m:mr>${e(t('1'))}${e(t('0'))}</m:mr><m:mr>${e(t('0'))}${e(t('1'))}</m:mr></m:m>`, '1, 0; 0, 1'],
    ['a root in a fraction', `<m:f><m:num>${t('1')}</m:num><m:den><m:rad><m:deg/>${e(t('x'))}</m:rad></m:den></m:f>`, '(1)/(√(x))'],
  ])('say %s in a line', async (_, content, html) => {
    expect((await first(math(content))).html).toBe(`so ${html} holds`);
  });

  it('show three indices of indices, and no thousand', async () => {
    const nest = (depth: number): string => (depth === 0 ? t('x') : `<m:sSup>${e(t('a'))}<m:sup>${nest(depth - 1)}</m:sup></m:sSup>`);
    const { html, text } = await first(math(nest(40)));
    expect(text).toBe(`so ${'a'.repeat(40)}x holds`);
    expect(html).toContain(`${'<sup>'.repeat(2)}x${'</sup>'.repeat(2)}`);
    expect(html).not.toContain('<sup>'.repeat(4));
  });

  it('keep the marks of the words after them', async () => {
    const { html } = await first(paragraph(`<m:oMath><m:sSup>${e(t('m'))}<m:sup>${t('2')}</m:sup></m:sSup></m:oMath>${run('x', '<w:b/>')}`));
    expect(html).toBe('m<sup>2</sup><strong>x</strong>');
  });
});

it('takes words that are set higher or lower by a distance for indices', async () => {
  const { html } = await first(
    paragraph(run('m') + run('3', '<w:position w:val="8"/>') + run('H') + run('2', '<w:position w:val="-6"/>') + run('O', '<w:position w:val="0"/>')),
  );
  expect(html).toBe('m<sup>3</sup>H<sub>2</sub>O');
});

describe('what else stands in a paragraph', () => {
  const relation = (target: string, more = '') => ({
    'word/_rels/document.xml.rels': `<Relationships><Relationship Id="rId1" Target="${target}" ${more}/></Relationships>`,
  });

  it('keeps addresses that links lead to, one link for several runs', async () => {
    const body = paragraph(`${run('see ')}<w:hyperlink r:id="rId1">${run('the ')}${run('manual', '<w:i/>')}</w:hyperlink>${run('.')}`);
    const { document } = await read(body, relation('https://weir.example/manual', 'TargetMode="External"'));
    expect(document.blocks[0]).toMatchObject({ text: 'see the manual.', html: 'see <a href="https://weir.example/manual">the <em>manual</em></a>.' });
  });

  it('keeps the words alone of links that run something or lead within the file', async () => {
    const body = paragraph(`<w:hyperlink r:id="rId1">${run('press')}</w:hyperlink><w:hyperlink w:anchor="here">${run(' here')}</w:hyperlink>`);
    expect((await read(body, relation('javascript:alert(1)', 'TargetMode="External"'))).document.blocks[0]).toMatchObject({ html: 'press here' });
  });

  it('keeps pictures of embedded objects, and says that the object stays behind', async () => {
    const body = paragraph('<w:object><v:shape alt="h = Q/v"><v:imagedata r:id="rId1"/></v:shape><o:OLEObject ProgID="Equation.3"/></w:object>');
    const more = { ...relation('media/f.png'), 'word/media/f.png': new Uint8Array([1]) };
    expect((await read(body, more)).document.blocks[0]).toMatchObject({ html: '<img src="coomb-picture:media/f.png" alt="h = Q/v">' });
    expect(await codes(body, more)).toEqual(['object']);
  });

  it.each([
    ['chart', '<w:drawing><a:graphicData><c:chart r:id="rId1"/></a:graphicData></w:drawing>'],
    ['chart', '<w:drawing><a:graphicData><dgm:relIds/></a:graphicData></w:drawing>'],
    ['hidden-text', '<w:rPr><w:vanish/></w:rPr><w:t>secret</w:t>'],
  ])('tells of %s', async (code, content) => {
    expect(await codes(paragraph(`<w:r>${content}</w:r>`))).toEqual([code]);
  });
});

describe('tables of uneven rows', () => {
  const tall = '<w:vMerge w:val="restart"/>';
  const on = '<w:vMerge/>';
  const cellOf = (text: string, properties = '') => cell(paragraph(text && run(text)), properties);

  it('carry words down in their column, not in their place among the cells', async () => {
    const { document } = await read(
      table(
        [cellOf('wide', '<w:gridSpan w:val="2"/>'), cellOf('tall', tall)],
        [cellOf('x'), cellOf('y'), cellOf('', on)],
        [cellOf('u'), cellOf('v'), cellOf('', on)],
      ),
    );
    expect((document.blocks[0] as SourceTable).rows.map((row) => row.map((one) => one.text))).toEqual([
      ['wide', 'tall'],
      ['x', 'y', 'tall'],
      ['u', 'v', 'tall'],
    ]);
  });

  it('leave columns free where a row begins further in', async () => {
    const row = (properties: string, ...cells: string[]) => `<w:tr><w:trPr>${properties}</w:trPr>${cells.join('')}</w:tr>`;
    const { document } = await read(`<w:tbl>${row('', cellOf('a'), cellOf('b'))}${row('<w:gridBefore w:val="1"/>', cellOf('c'))}</w:tbl>`);
    expect((document.blocks[0] as SourceTable).rows[1]!.map((one) => one.text)).toEqual(['', 'c']);
  });

  it('say over how many rows their header goes, where the file does', async () => {
    const row = (properties: string, text: string) => `<w:tr><w:trPr>${properties}</w:trPr>${cellOf(text)}</w:tr>`;
    const rowsOf = async (...marks: string[]) =>
      ((await read(`<w:tbl>${marks.map((mark) => row(mark, 'x')).join('')}</w:tbl>`)).document.blocks[0] as SourceTable).headerRows;
    expect(await rowsOf('<w:tblHeader/>', '<w:tblHeader/>', '')).toBe(2);
    expect(await rowsOf('<w:tblHeader/>', '', '<w:tblHeader/>')).toBeUndefined();
    expect(await rowsOf('<w:tblHeader w:val="false"/>', '')).toBeUndefined();
  });
});

it('finds lists that a list style defines', async () => {
  const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  const numbering = `<w:numbering ${W}><w:abstractNum w:abstractNumId="1"><w:styleLink w:val="Clauses"/><w:lvl w:ilvl="0"><w:numFmt w:val="decimal"/><w:lvlText w:val="%1."/></w:lvl></w:abstractNum>
    <w:abstractNum w:abstractNumId="2"><w:numStyleLink w:val="Clauses"/></w:abstractNum><w:num w:numId="7"><w:abstractNumId w:val="2"/></w:num></w:numbering>`;
  const { document } = await read(paragraph(run('x'), '<w:numPr><w:numId w:val="7"/></w:numPr>'), { 'word/numbering.xml': numbering });
  expect((document.blocks[0] as SourceParagraph).number).toBe('1');
});

describe('what a document holds beside its words', () => {
  const control = (properties: string, content: string) => `<w:sdt><w:sdtPr>${properties}</w:sdtPr><w:sdtContent>${content}</w:sdtContent></w:sdt>`;

  it('reads filled fields of forms, and hints that stand in empty ones as empty', async () => {
    const body = table(
      [cell(paragraph(run('Owner'))), cell(control('<w:showingPlcHdr/>', paragraph(run('Click here to enter a name'))))],
      [cell(paragraph(run('Place'))), cell(control('', paragraph(run('Otterby'))))],
    );
    const { document, issues } = await read(body);
    expect((document.blocks[0] as SourceTable).rows.map((row) => row.map((one) => one.text))).toEqual([
      ['Owner', ''],
      ['Place', 'Otterby'],
    ]);
    expect(issues).toMatchObject([{ severity: 'note', code: 'placeholder', at: 'table 1' }]);
  });

  it('goes on reading after such a field, and in a filled one around it', async () => {
    const inner = control('<w:showingPlcHdr/>', run('a hint'));
    expect((await first(paragraph(`${control('', `${run('One ')}${inner}${run('two')}`)}${run(' three')}`))).text).toBe('One two three');
    expect((await first(paragraph(control('<w:showingPlcHdr w:val="0"/>', run('said'))))).text).toBe('said');
  });

  it('tells of parts that are files of their own', async () => {
    const { issues } = await read(`${paragraph(run('Gates.'))}<w:altChunk r:id="rId9"/>`);
    expect(issues).toMatchObject([{ severity: 'warning', code: 'part-apart', message: expect.stringContaining('save the document again') }]);
  });
});
