import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { readDocx } from '../docx/read-docx.js';
import { docxOf } from '../testing/office-files.js';
import { drawMetafile, isMetafile } from './metafile.js';

/** A box with the words "Q = v", as an old formula editor leaves it: 98 bytes of WMF. */
const formula = Buffer.from(
  '183GmgAAAAAAAMgAZABgAAAAAADdVwEACQAAAyYAAAAAAAkAAAAAAAUAAAALAgAAAAAFAAAADAJkAMgABwAAABsEWgC+AAoACgAJAAAAIQUFAFEgPSB2ACgAHgADAAAAAAA=',
  'base64',
);

describe('drawMetafile', () => {
  it('draws what older office programs keep formulas as, packed or not, the same each time', async () => {
    const svg = Buffer.from((await drawMetafile(formula))!).toString();
    expect(svg).toMatch(/^<svg [^>]*width="200" height="100"/);
    expect(svg).toContain('>Q = v</text>');
    expect(Buffer.from((await drawMetafile(gzipSync(formula)))!).toString()).toBe(svg);
  });

  it.each([
    ['something else', Buffer.from('not a drawing')],
    ['a drawing cut short', formula.subarray(0, 30)],
    ['what swells', gzipSync(Buffer.alloc(50_000_000))],
  ])('gives up %s', async (_, bytes) => {
    expect(await drawMetafile(bytes)).toBeUndefined();
  });

  it('knows them by name', () => {
    expect(['a.EMF', 'b.wmz', 'c.png', 'emf'].map(isMetafile)).toEqual([true, true, false, false]);
  });

  it('shows them in documents', async () => {
    const relations =
      '<Relationships><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="media/image1.wmf"/></Relationships>';
    const body = '<w:p><w:r><w:t>The flow is </w:t></w:r><w:r><w:drawing><a:blip r:embed="rId1"/></w:drawing></w:r></w:p>';
    const { document, issues } = await readDocx(docxOf(body, { 'word/_rels/document.xml.rels': relations, 'word/media/image1.wmf': formula }));
    expect(document.pictures.get('media/image1.wmf')?.mediaType).toBe('image/svg+xml');
    expect(issues).toEqual([]);
  });
});
