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

  it('accepts insertions, leaves deletions out, and says so', async () => {
    const { document, issues } = await read(
      paragraph(`${run('The gate ')}<w:ins>${run('shall')}</w:ins><w:del><w:r><w:delText>may</w:delText></w:r></w:del>${run(' close')}`),
    );
    expect((document.blocks[0] as SourceParagraph).text).toBe('The gate shall close');
    expect(issues.map((issue) => issue.code).sort()).toEqual(['tracked-deletion', 'tracked-insertion']);
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
    const { issues } = await read(paragraph('<w:r><w:footnoteReference/></w:r>'.repeat(3)));
    expect(issues).toMatchObject([{ code: 'footnote', at: 'paragraph 1', message: expect.stringContaining('3 times') }]);
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
    expect(read[1]!.map((one) => one.text)).toEqual(['x', 'y', '']);
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

  it('reads a table inside a table as text of its cell', async () => {
    const { document, issues } = await read(table([cell(table([cell(paragraph(run('inner'))), cell(paragraph(run('too')))]) + paragraph(run('outer')))]));
    expect((document.blocks[0] as SourceTable).rows[0]![0]!.text).toBe('inner\ttoo\nouter');
    expect(issues).toMatchObject([{ code: 'table-nested' }]);
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
