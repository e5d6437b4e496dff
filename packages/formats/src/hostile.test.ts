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
import { docxOf, zipOf } from './testing/office-files.js';
import { dialects, reqifOf } from './testing/reqif-files.js';
import { inChunks, walkXml } from './xml/walk-xml.js';

const dialect = dialects['default namespace']!;
const bomb = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;">]>';
const deep = (name: string, times = 100_000) => `<${name}>`.repeat(times);
const padded = (parts: Record<string, string | Uint8Array>) => zipOf(parts);

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
    expect(issues.filter((issue) => issue.code === 'object-shared')).toHaveLength(2);
  });

  it('reads an empty document as no items, with nothing thrown', async () => {
    expect(await refusal('a.docx', docxOf(''))).toBeUndefined();
    expect(await refusal('a.md', '   ')).toBeUndefined();
  });
});
