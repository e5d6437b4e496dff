import { applyDocumentRecipe, defaultScheme, proposeDocumentRecipe, type SourceDocument } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { readFileContent } from './file-formats.js';
import { readHtml } from './html/read-html.js';
import { readMarkdown } from './markdown/read-markdown.js';
import { readPdf } from './pdf/read-pdf.js';
import { linesOf, pdfOf } from './testing/pdf-files.js';

const shape = ({ blocks }: SourceDocument) =>
  blocks.map((block) =>
    block.type === 'table'
      ? block.rows.map((row) => row.map((cell) => cell.text).join('|')).join(' / ')
      : `${block.level ? `h${block.level} ` : block.list ? `${block.list.ordered ? '1.' : '•'}${block.list.depth} ` : ''}${block.text}`,
  );

describe('readMarkdown', () => {
  it('reads headings, paragraphs, lists and tables', () => {
    const { document } = readMarkdown(
      Buffer.from(
        '# Gates\n\nAll **gates** move\nslowly.\n\n- one\n- two\n  1. deep\n\n| ID | Text |\n|---|---|\n| SYS-1 | shall `stop` |\n\n## Locks\n\nSYS-2: shall close.\n',
      ),
    );
    expect(shape(document)).toEqual([
      'h1 Gates',
      'All gates move slowly.',
      '•1 one',
      '•1 two',
      '1.2 deep',
      'ID|Text / SYS-1|shall stop',
      'h2 Locks',
      'SYS-2: shall close.',
    ]);
    expect(document.blocks[1]).toMatchObject({ html: 'All <strong>gates</strong> move slowly.' });
  });

  it('keeps elements that format, and takes other markup for the text that it is', () => {
    expect(shape(readMarkdown(Buffer.from('a <script>alert(1)</script> <level> <b>b</b><!-- c -->')).document)).toEqual([
      'a <script>alert(1)</script> <level> b',
    ]);
  });

  it('becomes items by the proposed recipe', () => {
    const { document } = readMarkdown(
      Buffer.from('# Gates\n\nSYS-1: The gate shall stop.\n\nPriority: High\n\nSYS-2: The gate shall close.\n\nPriority: Low\n'),
    );
    const { drafts } = applyDocumentRecipe(defaultScheme, proposeDocumentRecipe(defaultScheme, document), document);
    expect(drafts.map((draft) => [draft.reference, draft.fields.priority])).toEqual([
      [null, undefined],
      ['SYS-1', 'High'],
      ['SYS-2', 'Low'],
    ]);
  });

  it.each([
    ['empty', Buffer.from('')],
    ['binary', Buffer.from([0x4d, 0, 0, 1])],
  ])('refuses a file that is %s', (_, bytes) => {
    expect(() => readMarkdown(bytes)).toThrow();
  });
});

describe('readHtml', () => {
  it('keeps pictures that the page carries itself, and tells of those that lie elsewhere', () => {
    const dot = Buffer.from([0x89, 0x50, 0x4e, 0x47]);
    const html = `<p>See <img src="data:image/png;base64,${dot.toString('base64')}" alt="a gate"></p><p><img src="data:image/tiff;base64,AA=="><img src="https://x.example/a.png"></p>`;
    const { document, issues } = readHtml(Buffer.from(html));
    expect(document.blocks).toMatchObject([{ text: 'See', html: 'See <img src="coomb-picture:picture-1.png" alt="a gate" />' }]);
    expect(document.pictures.get('picture-1.png')).toMatchObject({ mediaType: 'image/png', bytes: dot });
    expect(issues).toMatchObject([{ code: 'picture-linked', message: expect.stringContaining('2 pictures') }]);
  });

  const read = (html: string) => readHtml(Buffer.from(html));

  it('reads what people see, and nothing of scripts and styles', () => {
    const { document, issues } = read(
      '<html><head><title>x</title><style>p{}</style></head><body><nav>menu</nav><h2>Gates &amp; locks</h2><div>One<div>Two</div></div><ol><li>a<li>b</ol><script>alert(1)</script><p onclick="x()">c<br>d <img src="https://example.org/x.png"></p></body></html>',
    );
    expect(shape(document)).toEqual(['h2 Gates & locks', 'One', 'Two', '1.1 a', '1.1 b', 'c\nd']);
    expect(issues).toMatchObject([{ code: 'picture-linked' }]);
  });

  it('reads tables with spanning cells and a table inside a cell', () => {
    const { document } = read('<table><tr><th colspan="2">Head</th></tr><tr><td>1</td><td><table><tr><td>a</td><td>b</td></tr></table></td></tr></table>');
    expect(shape(document)).toEqual(['Head / 1|a\tb', 'a|b']);
    expect(document.blocks[0]).toMatchObject({ rows: [[{ span: 2 }], [{ span: 1 }, { span: 1 }]] });
    expect(document.blocks[1]).toMatchObject({ at: 2, inside: 1 });
  });

  it('repeats a cell in every row that it spans, as continued', () => {
    const { document } = read(
      '<table><tr><td rowspan="3">A</td><td>1</td><td rowspan="2">X</td></tr><tr><td>2</td></tr><tr><td>3</td><td>Y</td></tr><tr><td>B</td><td>4</td><td>Z</td></tr></table>',
    );
    expect(shape(document)).toEqual(['A|1|X / A|2|X / A|3|Y / B|4|Z']);
    expect(document.blocks[0]).toMatchObject({
      rows: [
        [{}, {}, {}],
        [{ continued: true }, {}, { continued: true }],
        [{ continued: true }, {}, {}],
        [{}, {}, {}],
      ],
    });
  });

  it('keeps the lines of a listing and what indents them', () => {
    const { document } = read('<p>The gate  shall\nread:</p><pre><code>open(gate);\n  hold  &lt;5 s&gt;;\n</code></pre><p>  Then stop.</p>');
    expect(shape(document)).toEqual(['The gate shall read:', 'open(gate);\n  hold  <5 s>;', 'Then stop.']);
    expect(document.blocks[1]).toMatchObject({ html: '<code>open(gate);<br />\u00a0\u00a0hold\u00a0\u00a0&lt;5 s&gt;;<br /></code>' });
  });

  it('reads pages in other encodings', () => {
    expect(shape(readHtml(Buffer.from([0x3c, 0x70, 0x3e, 0x47, 0x72, 0xf6, 0xdf, 0x65])).document)).toEqual(['Größe']);
  });

  it('refuses elements nested without end', () => {
    expect(() => read('<div>'.repeat(100_000))).toThrow('nests elements more than');
  });
});

describe('readPdf', () => {
  const page = (number: number, ...lines: [string, number?][]) => [
    { x: 72, y: 810, size: 9, text: 'Gate manual, issue 2' },
    ...linesOf(lines),
    { x: 290, y: 30, size: 9, text: `Page ${number} of 3` },
  ];
  const pdf = pdfOf([
    page(
      1,
      ['Gates', 20],
      [''],
      ['Movement', 14],
      [''],
      ['SYS-1: The gate shall stop within'],
      ['two seconds of an order.'],
      [''],
      ['• at once'],
      ['• for good'],
    ),
    page(2, ['SYS-2: The gate shall stay where it is when the mains'], ['supply fails, whatever the water does to it, and for as']),
    page(3, ['long as the failure lasts.'], [''], ['Upkeep', 14], [''], ['The mainte-'], ['nance crew is told.']),
  ]);

  it('tells headings by their size, paragraphs by gaps, and drops page numbers and running heads', async () => {
    const { document, issues } = await readPdf(pdf);
    expect(shape(document)).toEqual([
      'h1 Gates',
      'h2 Movement',
      'SYS-1: The gate shall stop within two seconds of an order.',
      '•1 at once',
      '•1 for good',
      'SYS-2: The gate shall stay where it is when the mains supply fails, whatever the water does to it, and for as long as the failure lasts.',
      'h2 Upkeep',
      'The maintenance crew is told.',
    ]);
    expect(issues).toMatchObject([{ code: 'pdf-running', message: expect.stringContaining('6 page numbers') }]);
  });

  it('parts clauses that stand as near to one another as their lines', async () => {
    const lines: [string, number?][] = [
      ['4.1.1 The gate shall stop where it is and stay there, whatever'],
      ['happens on the shore.'],
      ['4.1.2 It shall lock.'],
      ['A lamp shows that it did, red by day and by night and also in the'],
      ['fog. Nobody may cover 3.5 m of it, nor paint it in another colour,'],
      ['SYS-9 The horn shall sound.'],
    ];
    const { document } = await readPdf(pdfOf([linesOf(lines)]));
    expect(shape(document)).toEqual([
      '4.1.1 The gate shall stop where it is and stay there, whatever happens on the shore.',
      '4.1.2 It shall lock.',
      'A lamp shows that it did, red by day and by night and also in the fog. Nobody may cover 3.5 m of it, nor paint it in another colour, SYS-9 The horn shall sound.',
    ]);
  });

  it('keeps indices in their line, raised and lowered', async () => {
    const at = (x: number, y: number, size: number, text: string) => ({ x, y, size, text });
    const { document } = await readPdf(
      pdfOf([[at(72, 700, 10, 'A load of 5 kN/m'), at(146, 704, 6, '2'), at(152, 700, 10, 'and CO'), at(186.6, 697.5, 6, '2')]]),
    );
    expect(document.blocks).toMatchObject([{ text: 'A load of 5 kN/m2 and CO2', html: 'A load of 5 kN/m<sup>2</sup> and CO<sub>2</sub>' }]);
  });

  it('goes on over a page where the sentence does, though a capital begins it there', async () => {
    const full = 'The crew of the lock and of the weir and of the control room tells the';
    const pages = [linesOf([[full]]), linesOf([['Board at once.'], [''], ['Then it waits.']])];
    expect(shape((await readPdf(pdfOf(pages))).document)).toEqual([`${full} Board at once.`, 'Then it waits.']);
  });

  it('says where tables seem to stand, which a PDF does not tell', async () => {
    const row = (y: number, ...cells: string[]) => cells.map((text, column) => ({ x: 72 + column * 150, y, size: 10, text }));
    const { document, issues } = await readPdf(pdfOf([[...row(700, 'Part', 'Load'), ...row(680, 'gate', '5 kN')]]));
    expect(issues).toMatchObject([{ code: 'pdf-table', at: 'page 1' }]);
    expect(shape(document).join(' ')).toBe('Part Load gate 5 kN');
  });

  it('lets every item know its page', async () => {
    const { document } = await readPdf(pdf);
    const { drafts } = applyDocumentRecipe(defaultScheme, proposeDocumentRecipe(defaultScheme, document), document);
    expect(drafts.filter((draft) => draft.role === 'item').map((draft) => [draft.reference, draft.place.says, draft.place.page])).toEqual([
      ['SYS-1', 'page 1, paragraph 3', 1],
      ['SYS-2', 'page 2, paragraph 6', 2],
    ]);
  });

  it.each<[string, Buffer, string]>([
    ['no PDF', Buffer.from('hello'), 'is not a PDF'],
    ['cut short', pdf.subarray(0, 30), 'damaged'],
    ['without text', pdfOf([[]]), 'holds no text'],
  ])('refuses what is %s', async (_, bytes, message) => {
    await expect(readPdf(bytes)).rejects.toThrow(message);
  });
});

describe('documents by their name', () => {
  it.each([
    ['a.md', '# A', 'markdown'],
    ['a.html', '<h1>A</h1>', 'html'],
    ['a.htm', '<!doctype html><h1>A</h1>', 'html'],
  ])('%s', async (name, text, format) => {
    const read = await readFileContent(name, Buffer.from(text));
    expect([read.format.id, read.content.type]).toEqual([format, 'document']);
  });
});
