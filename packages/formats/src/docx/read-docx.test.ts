import type { SourceParagraph, SourceTable } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { cell, docxOf, paragraph, run, style, table } from '../testing/office-files.js';
import { readDocx } from './read-docx.js';

const read = async (body: string, more: Record<string, string | Uint8Array> = {}) => readDocx(docxOf(body, more));
const blocksOf = async (body: string) => (await read(body)).document.blocks;
const first = async (body: string) => (await blocksOf(body))[0] as SourceParagraph;

describe('paragraphs', () => {
  it.each([
    ['a style named heading', style('Heading1'), 1],
    ['an outline level under a localised name', style('berschrift2'), 2],
    ['a style based on a heading', style('Kapitel'), 1],
    ['an outline level of its own', '<w:outlineLvl w:val="2"/>', 3],
    ['body text by outline level 9', '<w:pStyle w:val="Heading1"/><w:outlineLvl w:val="9"/>', 0],
    ['an unknown style', style('Riddle'), 0],
  ])('knows headings by %s', async (_, properties, level) => {
    expect((await first(paragraph(run('Levels'), properties))).level).toBe(level);
  });

  it('keeps formatting as plain markup and joins runs that writers split', async () => {
    const { text, html } = await first(
      paragraph(
        run('hold ', '<w:b/>') +
          run('fast', '<w:b/>') +
          run(' m') +
          run('3', '<w:vertAlign w:val="superscript"/>') +
          run(' &amp; &lt;x&gt;', '<w:i w:val="0"/>'),
      ),
    );
    expect(text).toBe('hold fast m3 & <x>');
    expect(html).toBe('<strong>hold fast</strong> m<sup>3</sup> &amp; &lt;x&gt;');
  });

  it('numbers paragraphs as they stand, tables aside', async () => {
    const blocks = await blocksOf(paragraph(run('a')) + table([cell(paragraph(run('x')))]) + paragraph(run('b')));
    expect(blocks.map((block) => [block.type, block.at])).toEqual([
      ['paragraph', 1],
      ['table', 1],
      ['paragraph', 2],
    ]);
  });

  it('knows lists, counted or marked, by numbering or by style', async () => {
    const list = (id: number, level: number) => `<w:numPr><w:ilvl w:val="${level}"/><w:numId w:val="${id}"/></w:numPr>`;
    const blocks = (await blocksOf(
      paragraph(run('dot'), list(1, 0)) + paragraph(run('count'), list(2, 1)) + paragraph(run('styled'), style('Dots')) + paragraph(run('none'), list(0, 0)),
    )) as SourceParagraph[];
    expect(blocks.map((block) => block.list)).toEqual([{ depth: 1, ordered: false }, { depth: 2, ordered: true }, { depth: 1, ordered: false }, undefined]);
  });

  it('leaves the table of contents, field codes and fallback drawings out', async () => {
    const { document, issues } = await read(
      paragraph(run('Levels 3'), style('TOC1')) +
        paragraph(
          `<w:r><w:instrText>PAGEREF x</w:instrText></w:r>${run('seen')}<mc:AlternateContent><mc:Fallback>${run('twice')}</mc:Fallback></mc:AlternateContent>`,
        ),
    );
    expect(document.blocks.map((block) => (block as SourceParagraph).text)).toEqual(['seen']);
    expect(issues).toMatchObject([{ code: 'contents', severity: 'note' }]);
  });

  it('reads text boxes where they are anchored', async () => {
    const { text } = await first(
      paragraph(`${run('before')}<w:r><w:drawing><w:txbxContent>${paragraph(run('boxed'))}</w:txbxContent></w:drawing></w:r>${run(' after')}`),
    );
    expect(text).toBe('before boxed after');
  });

  it('counts oddities once each, with how often', async () => {
    const { issues } = await read(paragraph('<w:r><w:footnoteReference w:id="7"/></w:r>'.repeat(3)));
    expect(issues).toMatchObject([{ code: 'footnote-missing', at: 'paragraph 1', message: expect.stringContaining('3 times') }]);
  });
});

describe('tracked changes', () => {
  const by = 'w:author="R. Thwaite" w:date="2026-03-02T08:00:00Z"';
  const came = (content: string) => `<w:ins ${by}>${content}</w:ins>`;
  const went = (text: string) => `<w:del ${by}><w:r><w:delText xml:space="preserve">${text}</w:delText></w:r></w:del>`;

  it('keep both versions and the marked one, and name who and where', async () => {
    const { document, issues } = await read(paragraph(run('Before.')) + paragraph(`${run('The gate ')}${went('may')}${came(run('shall'))}${run(' close')}`));
    expect(document.blocks[1]).toMatchObject({
      text: 'The gate shall close',
      html: 'The gate shall close',
      tracked: { text: 'The gate may close', html: 'The gate may close', marked: 'The gate <del>may</del><ins>shall</ins> close' },
    });
    expect(document.blocks[0]).not.toHaveProperty('tracked');
    expect(issues).toMatchObject([{ code: 'tracked', at: 'paragraph 2', message: expect.stringContaining('R. Thwaite on 2026-03-02') }]);
  });

  it('that move text or undo one another are read in both versions', async () => {
    const { tracked, ...block } = (await first(
      paragraph(`<w:moveFrom ${by}>${run('gone ')}</w:moveFrom>${run('stays')}<w:moveTo ${by}>${run(' come')}</w:moveTo>${came(went('never'))}`),
    ))!;
    expect([block.text, tracked!.text]).toEqual(['stays come', 'gone stays']);
    expect(tracked!.marked).not.toContain('never');
  });

  it('of a whole paragraph leave it empty in one version', async () => {
    const blocks = (await blocksOf(
      paragraph(came(run('New.')), `<w:rPr><w:ins ${by}/></w:rPr>`) + paragraph(went('Old.'), `<w:rPr><w:del ${by}/></w:rPr>`),
    )) as SourceParagraph[];
    expect(blocks.map((block) => [block.tracked!.text, block.text])).toEqual([
      ['', 'New.'],
      ['Old.', ''],
    ]);
  });

  it('reach into cells with several paragraphs, and formatting changes are none', async () => {
    const [block] = await blocksOf(
      table([cell(paragraph(run('a')) + paragraph(came(run('b')))), cell(paragraph(run('x', '<w:b/><w:rPrChange><w:rPr><w:i/></w:rPr></w:rPrChange>')))]),
    );
    const [one, two] = (block as SourceTable).rows[0]!;
    expect(one).toMatchObject({ text: 'a\nb', html: '<p>a</p><p>b</p>', tracked: { text: 'a', html: 'a', marked: '<p>a</p><p><ins>b</ins></p>' } });
    expect(two).toEqual({ text: 'x', html: '<strong>x</strong>', span: 1 });
  });

  it('of a row do not reach beyond it', async () => {
    const row = `<w:tr><w:trPr><w:ins ${by}/></w:trPr>${cell(paragraph(run('in')))}</w:tr>`;
    const blocks = await blocksOf(`<w:tbl>${row}</w:tbl>${paragraph(run('after'))}`);
    expect(blocks[1]).toMatchObject({ text: 'after' });
    expect(blocks[1]).not.toHaveProperty('tracked');
  });
});

describe('notes beside the text', () => {
  const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  const notes = (kind: string, list: Record<string, string>) =>
    `<w:${kind}s ${W}><w:${kind} w:id="0" w:type="separator">${paragraph(run('---'))}</w:${kind}>${Object.entries(list)
      .map(
        ([id, text]) =>
          `<w:${kind} w:id="${id}" w:author="M. Eyre">${text
            .split('|')
            .map((one) => paragraph(run(one)))
            .join('')}</w:${kind}>`,
      )
      .join('')}</w:${kind}s>`;
  const refer = (kind: string, id: number) => `<w:r><w:${kind}Reference w:id="${id}"/></w:r>`;

  it('stand with the paragraph that names them, footnotes and endnotes counted together', async () => {
    const { document } = await read(paragraph(run('Hold the level') + refer('footnote', 2) + run(' always') + refer('endnote', 2)), {
      'word/footnotes.xml': notes('footnote', { 2: 'Over a day &lt;mean&gt;|of 24 h' }),
      'word/endnotes.xml': notes('endnote', { 2: 'Since 2025' }),
    });
    expect(document.blocks[0]).toMatchObject({
      text: 'Hold the level[1] always[2]',
      html: 'Hold the level<sup>[1]</sup> always<sup>[2]</sup>',
      footnotes: [
        { mark: '[1]', html: 'Over a day &lt;mean&gt;<br>of 24 h' },
        { mark: '[2]', html: 'Since 2025' },
      ],
    });
  });

  it('show comments with who wrote them, in cells too, and put none into the text', async () => {
    const { document, issues } = await read(table([cell(paragraph(run('60 s') + refer('comment', 1))), cell(paragraph(run('x')))]), {
      'word/comments.xml': notes('comment', { 1: 'Too slow?' }),
    });
    expect((document.blocks[0] as SourceTable).rows[0]![0]).toMatchObject({ text: '60 s', comments: [{ by: 'M. Eyre', text: 'Too slow?' }] });
    expect(issues).toMatchObject([{ code: 'comment', at: 'table 1' }]);
  });
});

describe('numbers that the document counts', () => {
  const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  const level = (at: number, format: string, text: string, more = '') =>
    `<w:lvl w:ilvl="${at}"><w:start w:val="1"/><w:numFmt w:val="${format}"/><w:lvlText w:val="${text}"/>${more}</w:lvl>`;
  const numbering = `<w:numbering ${W}><w:abstractNum w:abstractNumId="5">${level(0, 'decimal', '%1.', '<w:pStyle w:val="Heading1"/>')}${level(1, 'decimal', '%1.%2')}${level(2, 'lowerLetter', '%3)')}${level(3, 'upperRoman', 'Case %4')}</w:abstractNum>
    <w:num w:numId="5"><w:abstractNumId w:val="5"/></w:num><w:num w:numId="6"><w:abstractNumId w:val="5"/><w:lvlOverride w:ilvl="0"><w:startOverride w:val="7"/></w:lvlOverride></w:num></w:numbering>`;
  const styles = `<w:styles ${W}><w:style w:type="paragraph" w:styleId="Heading1"><w:name w:val="heading 1"/><w:pPr><w:numPr><w:numId w:val="5"/></w:numPr></w:pPr></w:style></w:styles>`;
  const at = (ilvl: number, numId = 5) => `<w:numPr><w:ilvl w:val="${ilvl}"/><w:numId w:val="${numId}"/></w:numPr>`;
  const numbers = async (...paragraphs: string[]) =>
    (await read(paragraphs.join(''), { 'word/numbering.xml': numbering, 'word/styles.xml': styles })).document.blocks.map(
      (block) => (block as SourceParagraph).number,
    );

  it('count levels, start lower ones anew, and follow the style of headings', async () => {
    const heading = paragraph(run('Gates'), style('Heading1'));
    const lines = [at(1), at(1), at(2), at(2), at(3)].map((properties) => paragraph(run('x'), properties));
    expect(await numbers(heading, ...lines, heading, lines[0]!, lines[2]!)).toEqual(['1', '1.1', '1.2', 'a)', 'b)', 'Case I', '2', '2.1', 'a)']);
  });

  it('start where a list says so, once, and pass over empty paragraphs', async () => {
    expect(await numbers(paragraph(run('a'), at(0)), paragraph('', at(0)), paragraph(run('b'), at(0, 6)), paragraph(run('c'), at(0, 6)))).toEqual([
      '1',
      undefined,
      '7',
      '8',
    ]);
  });

  it('are none for marks and unknown lists', async () => {
    const blocks = (await blocksOf(paragraph(run('dot'), '<w:numPr><w:numId w:val="1"/></w:numPr>') + paragraph(run('x'), at(0, 99)))) as SourceParagraph[];
    expect(blocks.map((block) => block.number)).toEqual([undefined, undefined]);
  });
});

describe('tables', () => {
  const rows = async (body: string) => ((await blocksOf(body))[0] as SourceTable).rows;

  it('reads cells with several paragraphs', async () => {
    const one = (await rows(table([cell(paragraph(run('a')) + paragraph('') + paragraph(run('b')))])))[0]![0]!;
    expect(one).toMatchObject({ text: 'a\nb', html: '<p>a</p><p>b</p>', span: 1 });
  });

  it('knows cells that span columns, and repeats those that go on from above', async () => {
    const read = await rows(
      table(
        [cell(paragraph(run('wide')), '<w:gridSpan w:val="2"/>'), cell(paragraph(run('tall')), '<w:vMerge w:val="restart"/>')],
        [cell(paragraph(run('x'))), cell(paragraph(run('y'))), cell(paragraph(''), '<w:vMerge/>')],
      ),
    );
    expect(read[0]!.map((one) => one.span)).toEqual([2, 1]);
    expect(read[1]!.map((one) => one.text)).toEqual(['x', 'y', 'tall']);
    const straight = await rows(
      table(
        [cell(paragraph(run('a'))), cell(paragraph(run('tall')), '<w:vMerge w:val="restart"/>')],
        [cell(paragraph(run('b'))), cell(paragraph(''), '<w:vMerge/>')],
      ),
    );
    expect(straight[1]!.map((one) => [one.text, one.continued])).toEqual([
      ['b', undefined],
      ['tall', true],
    ]);
  });

  it('reads a table inside a table as part of its cell, and as a table of its own after it', async () => {
    const { document } = await read(
      table([cell(table([cell(paragraph(run('inner'))), cell(paragraph(run('too')))]) + paragraph(run('outer')))]) + table([cell(paragraph(run('next')))]),
    );
    const [outer, inner, next] = document.blocks as SourceTable[];
    expect(outer!.rows[0]![0]).toMatchObject({
      text: 'inner\ttoo\nouter',
      html: '<table><tbody><tr><td>inner</td><td>too</td></tr></tbody></table><p>outer</p>',
    });
    expect([inner!.at, inner!.inside, inner!.rows[0]!.map((one) => one.text)]).toEqual([2, 1, ['inner', 'too']]);
    expect([next!.at, next!.inside]).toEqual([3, undefined]);
  });

  it('reads tables nested very deep as text', async () => {
    const nest = (depth: number): string => (depth === 0 ? paragraph(run('core')) : table([cell(nest(depth - 1))]));
    const { document, issues } = await read(nest(12));
    expect((document.blocks[0] as SourceTable).rows[0]![0]!.text).toContain('core');
    expect(document.blocks).toHaveLength(4);
    expect(issues).toMatchObject([{ code: 'table-deep' }]);
  });
});

describe('pictures', () => {
  const drawing = (id: string) => `<w:r><w:drawing><wp:docPr descr="A gate"/><a:blip r:embed="${id}"/></w:drawing></w:r>`;
  const relations = (target: string) => `<Relationships><Relationship Id="rId1" Target="${target}"/></Relationships>`;

  it('keeps pictures with their description', async () => {
    const { document } = await read(paragraph(drawing('rId1')), {
      'word/_rels/document.xml.rels': relations('media/gate.png'),
      'word/media/gate.png': new Uint8Array([1, 2, 3]),
    });
    expect((document.blocks[0] as SourceParagraph).html).toBe('<img src="coomb-picture:media/gate.png" alt="A gate">');
    expect(document.pictures.get('media/gate.png')).toMatchObject({ mediaType: 'image/png', bytes: Buffer.from([1, 2, 3]) });
  });

  it('names pictures that are missing, linked, or of a kind that is not shown', async () => {
    const codes = async (target: string, more = {}) =>
      (await read(paragraph(drawing('rId1')), { 'word/_rels/document.xml.rels': relations(target), ...more })).issues.map((issue) => issue.code);
    expect(await codes('media/gone.png')).toEqual(['picture-missing']);
    expect(await codes('media/plan.emf', { 'word/media/plan.emf': 'x' })).toEqual(['picture-type']);
    expect((await read(paragraph(drawing('rId9')))).issues.map((issue) => issue.code)).toEqual(['picture-linked']);
  });
});
