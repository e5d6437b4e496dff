import { deflateSync } from 'node:zlib';
import {
  applyDocumentRecipe,
  applyExchangeRecipe,
  applySheetRecipe,
  defaultScheme,
  proposeDocumentRecipe,
  proposeExchangeRecipe,
  proposeSheetRecipe,
} from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { BodyReader } from './docx/body-reader.js';
import { readFileContent } from './file-formats.js';
import { ReadError } from './read-error.js';
import { sanitiseRichText } from './rich-text/sanitise.js';
import { docxOf, xlsxOf, zipOf } from './testing/office-files.js';
import { dialects, reqifOf } from './testing/reqif-files.js';
import { inChunks, walkXml } from './xml/walk-xml.js';

const dialect = dialects['default namespace']!;
const bomb = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;">]>';
const deep = (name: string, times = 100_000) => `<${name}>`.repeat(times);
const padded = (parts: Record<string, string | Uint8Array>) => zipOf(parts);

const drawn = (count: number) =>
  `BT /F1 10 Tf ${Array.from({ length: count }, (_, at) => `1 0 0 1 50 ${10 + ((at * 13) % 800)} Tm (Level ${at}) Tj`).join('\n')} ET`;

/** A PDF whose pages all draw one packed stream. */
function pdfWith(packed: Uint8Array, filter: string, pages = 1): Uint8Array {
  const kids = Array.from({ length: pages }, (_, at) => 5 + at);
  const objects: [number, string | Uint8Array][] = [
    [1, '<< /Type /Catalog /Pages 2 0 R >>'],
    [2, `<< /Type /Pages /Kids [${kids.map((kid) => `${kid} 0 R`).join(' ')}] /Count ${pages} >>`],
    [3, '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>'],
    [4, Buffer.concat([Buffer.from(`<< /Length ${packed.length} /Filter ${filter} >>\nstream\n`), packed, Buffer.from('\nendstream')])],
    ...kids.map((kid): [number, string] => [
      kid,
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 850] /Resources << /Font << /F1 3 0 R >> >> /Contents 4 0 R >>',
    ]),
  ];
  return Buffer.concat([
    Buffer.from('%PDF-1.4\n'),
    ...objects.flatMap(([number, body]) => [Buffer.from(`${number} 0 obj\n`), Buffer.from(body), Buffer.from('\nendobj\n')]),
    Buffer.from(`trailer << /Size ${5 + pages} /Root 1 0 R >>\n`),
  ]);
}

/** Reads a file and makes items of it; gives the refusal, or undefined when it was read. */
async function refusal(name: string, bytes: Uint8Array | string): Promise<ReadError | undefined> {
  try {
    const { content } = await readFileContent(name, typeof bytes === 'string' ? Buffer.from(bytes) : bytes);
    if (content.type === 'document') applyDocumentRecipe(defaultScheme, proposeDocumentRecipe(defaultScheme, content.document), content.document);
    if (content.type === 'sheets') applySheetRecipe(defaultScheme, proposeSheetRecipe(defaultScheme, content.sheets), content.sheets);
    if (content.type === 'exchange') applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, content.exchange), content.exchange);
    return undefined;
  } catch (error) {
    if (error instanceof ReadError) return error;
    throw error;
  }
}

describe('hostile files get a message', () => {
  it.each<[string, string, Uint8Array | string, string]>([
    ['entities that expand, in ReqIF', 'a.reqif', `${bomb}<REQ-IF>&c;</REQ-IF>`, 'xml-doctype'],
    ['entities that expand, in XMI', 'a.xmi', `${bomb}<xmi:XMI>&c;</xmi:XMI>`, 'xml-doctype'],
    ['entities that expand, inside a document', 'a.docx', padded({ 'word/document.xml': `${bomb}<w:document/>` }), 'xml-doctype'],
    ['an entity that reads a file', 'a.reqif', '<!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]><REQ-IF>&a;</REQ-IF>', 'xml-doctype'],
    ['elements nested a hundred thousand deep, in ReqIF', 'a.reqif', `<REQ-IF>${deep('SPEC-HIERARCHY')}`, 'xml-deep'],
    ['elements nested a hundred thousand deep, in XMI', 'a.xmi', `<xmi:XMI>${deep('packagedElement')}`, 'xml-deep'],
    ['elements nested a hundred thousand deep, in a web page', 'a.html', deep('ul'), 'html-deep'],
    ['XML that ends in the middle', 'a.reqif', '<REQ-IF><THE-HEADER>', 'xml-broken'],
    ['bytes that are no text of their encoding', 'a.reqif', Buffer.concat([Buffer.from('<?xml version="1.0" encoding="klingon"?><REQ-IF/>')]), 'xml-encoding'],
    ['an archive without what it promises', 'a.reqifz', zipOf({ 'readme.txt': 'x' }), 'not-reqif'],
    ['an archive of exchanges that are none', 'a.reqifz', zipOf({ 'a.reqif': '<REQ-IF/>', 'b.reqif': '<y/>' }), 'not-reqif'],
    ['no PDF behind the name', 'a.pdf', 'PDF', 'not-a-pdf'],
  ])('%s', async (_, name, bytes, code) => {
    const error = await refusal(name, bytes);
    expect(error?.code).toBe(code);
    expect(error!.message).toMatch(/\.$/);
  });

  it.each<[string, string, () => Uint8Array | string, string]>([
    ['values with more columns than any sheet', 'a.csv', () => `a${',b'.repeat(70_000)}\n1`, 'sheet-too-large'],
    ['values of nothing but line ends', 'a.csv', () => '\n'.repeat(2_000_001), 'file-empty'],
    ['a quotation mark that nobody closes', 'a.csv', () => `a,b\n1,"${'gate\n'.repeat(500_000)}`, 'csv-value-long'],
    ['a paragraph of Markdown signs', 'a.md', () => '*a _b '.repeat(60_000), 'markdown-dense'],
    ['cells that go over a thousand rows each', 'a.html', () => `<table>${'<tr><td rowspan="1000">a</td></tr>'.repeat(2500)}</table>`, 'table-too-large'],
    ['a cell in the last corner of every row', 'a.xlsx', () => xlsxOf({ A: '<row><c r="XFD1"><v>1</v></c></row>'.repeat(130) }), 'sheet-too-large'],
    ['a paragraph in pieces', 'a.docx', () => docxOf(`<w:p>${'<w:r><w:t>a</w:t></w:r>'.repeat(200_001)}</w:p>`), 'document-too-large'],
    ['a page that swells', 'a.pdf', () => pdfWith(deflateSync(Buffer.alloc(20_000_000, ' ')), '/FlateDecode'), 'pdf-swells'],
    ['a page packed twice', 'a.pdf', () => pdfWith(deflateSync(deflateSync(Buffer.alloc(2_000_000, ' '))), '[/FlateDecode /FlateDecode]'), 'pdf-swells'],
    ['a page packed in the old manner, and long', 'a.pdf', () => pdfWith(Buffer.alloc(200_000), '/LZWDecode'), 'pdf-swells'],
    ['a page of more texts than fit', 'a.pdf', () => pdfWith(deflateSync(Buffer.from(drawn(20_500))), '/FlateDecode'), 'pdf-dense'],
    ['more pages than anybody reads', 'a.pdf', () => `%PDF-1.4\n${'<< /Type /Page >>\n'.repeat(3001)}`, 'pdf-long'],
  ])('%s', async (_, name, make, code) => {
    const error = await refusal(name, make());
    expect(error?.code).toBe(code);
    expect(error!.message).toMatch(/\.$/);
  });

  it('reads a PDF whose pages draw the same content, unless they go on and on', async () => {
    const page = deflateSync(Buffer.from(drawn(2000)));
    expect(await refusal('a.pdf', pdfWith(page, '/FlateDecode', 3))).toBeUndefined();
    expect(await refusal('a.pdf', pdfWith(page, '/FlateDecode', 30))).toMatchObject({
      code: 'pdf-dense',
      message: expect.stringContaining('a file of its size'),
    });
  });

  it('takes no room for cells that are only formatted', async () => {
    const { content } = await readFileContent('a.xlsx', xlsxOf({ A: '<row><c r="A1"><v>1</v></c><c r="XFD1" s="1"/></row>'.repeat(500) }));
    expect(content.type === 'sheets' && content.sheets[0]!.rows[499]).toEqual(['1']);
  });

  it('tells once of an object that an outline shows again and again', async () => {
    const objects = [{ id: 'o-1', foreign: 'A', text: 'a' }];
    const nodes = Array.from({ length: 50 }, () => ({ object: 'o-1' }));
    const { content } = await readFileContent('a.reqif', Buffer.from(reqifOf(dialect, objects, nodes)));
    if (content.type !== 'exchange') throw new Error(content.type);
    const { issues } = applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, content.exchange), content.exchange);
    expect(issues.filter((issue) => issue.code === 'object-shared')).toHaveLength(1);
  });

  it('refuses a text without end before it fills the memory', async () => {
    const walk = (text: string) => walkXml(inChunks(Buffer.from(`<a>${text}</a>`)), { open() {}, close() {} });
    await expect(walk('a'.repeat(33 * 1024 * 1024))).rejects.toMatchObject({ code: 'xml-long' });
    await walk('a'.repeat(1024 * 1024));
    await walk(`${'a'.repeat(1024 * 1024)}<b/>`.repeat(40));
  });

  it('refuses a document of more paragraphs than anybody writes', async () => {
    const body = new BodyReader({
      styles: new Map(),
      numbering: undefined,
      targets: new Map(),
      addresses: new Map(),
      footnotes: new Map(),
      endnotes: new Map(),
      comments: new Map(),
    });
    const add = () => {
      body.open('w:p', {});
      body.close('w:p');
    };
    for (let at = 0; at < 500_000; at++) add();
    expect(add).toThrow('more than 500000 paragraphs');
  });

  it.each(['../../etc/passwd', '/etc/passwd', 'C:\\Windows\\a', 'word/../../x'])(
    'an archive with the path %s is refused or read as a name only',
    async (path) => {
      const bytes = zipOf({ [path]: 'x', 'word/document.xml': '<w:document xmlns:w="w"><w:body><w:p><w:r><w:t>a</w:t></w:r></w:p></w:body></w:document>' });
      const error = await refusal('a.docx', bytes);
      if (error) expect(error.code).toMatch(/^archive/);
    },
  );
});

describe('what looks harmless stays harmless', () => {
  it('takes scripts, events and outside pictures out of exchanged rich text', async () => {
    const evil =
      '<p onclick="x()">a</p><script>alert(1)</script><a href="javascript:x()">b</a><object data="https://example.org/x.png" type="image/png">c</object>';
    const { content } = await readFileContent('a.reqif', Buffer.from(reqifOf(dialect, [{ id: 'o-1', foreign: 'A-1', text: evil }], [{ object: 'o-1' }])));
    const html = content.type === 'exchange' ? String(content.exchange.objects[0]!.values['a-text']) : '';
    expect(html).not.toMatch(/script|onclick|javascript/);
    expect(sanitiseRichText(html)).toBe(html);
  });

  it('reads a sheet of formulas as the texts they are', async () => {
    const { content } = await readFileContent('a.csv', Buffer.from('ID,Title\nA-1,"=HYPERLINK(""https://example.org"")"\nA-2,@SUM(A1)\n'));
    if (content.type !== 'sheets') throw new Error('no sheet');
    const { drafts } = applySheetRecipe(defaultScheme, proposeSheetRecipe(defaultScheme, content.sheets), content.sheets);
    expect(drafts.map((draft) => draft.title)).toEqual(['=HYPERLINK("https://example.org")', '@SUM(A1)']);
  });

  it('breaks a ring of parents instead of turning in it', async () => {
    const { content } = await readFileContent('a.csv', Buffer.from('ID,Title,Parent\nA-1,One,A-2\nA-2,Two,A-1\nA-3,Three,A-3\n'));
    if (content.type !== 'sheets') throw new Error('no sheet');
    const { drafts, issues } = applySheetRecipe(defaultScheme, proposeSheetRecipe(defaultScheme, content.sheets), content.sheets);
    expect(drafts.map((draft) => draft.parent)).toEqual([-1, 0, -1]);
    expect(issues.map((issue) => issue.code)).toEqual(['parent-unknown', 'parent-unknown']);
  });

  it('shows an object once whose outline holds itself', async () => {
    const xml = reqifOf(dialect, [{ id: 'o-1', foreign: 'A-1', text: 'x' }], [{ object: 'o-1', children: [{ object: 'o-1', children: [{ object: 'o-1' }] }] }]);
    const { content } = await readFileContent('a.reqif', Buffer.from(xml));
    if (content.type !== 'exchange') throw new Error('no exchange');
    const { drafts, issues } = applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, content.exchange), content.exchange);
    expect(drafts).toHaveLength(1);
    expect(issues.filter((issue) => issue.code === 'object-shared')).toHaveLength(1);
  });

  it('reads an empty document as no items, with nothing thrown', async () => {
    expect(await refusal('a.docx', docxOf(''))).toBeUndefined();
    expect(await refusal('a.md', '   ')).toBeUndefined();
  });
});
