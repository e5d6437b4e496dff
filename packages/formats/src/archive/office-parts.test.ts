import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { readFileContent } from '../file-formats.js';
import { docxOf, paragraph, run, xlsxOf, zipOf } from '../testing/office-files.js';

/** The same package with its parts at other names, and relationships that say where they are. */
function moved(bytes: Uint8Array, names: [from: string, to: string][], main: string, more: Record<string, string> = {}): Uint8Array {
  const parts = Object.fromEntries(
    Object.entries(unzipSync(bytes)).map(([name, content]): [string, Uint8Array] => {
      const found = names.find(([from]) => name.startsWith(from));
      return [found ? name.replace(found[0], found[1]) : name, content];
    }),
  );
  return zipOf({
    ...parts,
    '_rels/.rels': `<Relationships><Relationship Id="r1" Type="http://purl.oclc.org/ooxml/officeDocument/relationships/officeDocument" Target="/${main}"/></Relationships>`,
    ...more,
  });
}

describe('a package that keeps its document elsewhere', () => {
  it('is read as a document, with its styles', async () => {
    const usual = docxOf(paragraph(run('Gates'), '<w:pStyle w:val="Heading1"/>') + paragraph(run('SYS-001: Close.')));
    const bytes = moved(
      usual,
      [
        ['word/document.xml', 'content/main2.xml'],
        ['word/styles.xml', 'looks/a.xml'],
        ['word/numbering.xml', 'looks/n.xml'],
      ],
      'content/main2.xml',
      {
        'content/_rels/main2.xml.rels': '<Relationships><Relationship Id="r1" Type="http://x/relationships/styles" Target="../looks/a.xml"/></Relationships>',
      },
    );
    const { content } = await readFileContent('a.docx', bytes);
    expect(content.type === 'document' && content.document.blocks.map((block) => block.type === 'paragraph' && [block.level, block.text])).toEqual([
      [1, 'Gates'],
      [0, 'SYS-001: Close.'],
    ]);
  });

  it('is read as a workbook', async () => {
    const usual = xlsxOf({ A: '<row><c t="str"><v>ID</v></c></row><row><c t="str"><v>SYS-1</v></c></row>' });
    const { content } = await readFileContent('a.xlsx', moved(usual, [['xl/', 'book/']], 'book/workbook.xml'));
    expect(content.type === 'sheets' && content.sheets.map((sheet) => [sheet.name, sheet.rows.length])).toEqual([['A', 2]]);
  });

  it('is refused where it is of another sort', async () => {
    const book = xlsxOf({ A: '<row><c t="str"><v>ID</v></c></row>' });
    await expect(readFileContent('a.docx', book)).rejects.toMatchObject({ code: 'not-a-docx' });
    expect(strFromU8(unzipSync(book)['xl/workbook.xml']!)).toContain('<sheets>');
  });
});

describe('hidden words', () => {
  const styles = (properties: string) => `<w:styles xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">
<w:style w:type="paragraph" w:styleId="Quiet"><w:name w:val="Quiet"/><w:rPr>${properties}</w:rPr></w:style>
<w:style w:type="paragraph" w:styleId="Quieter"><w:name w:val="Quieter"/><w:basedOn w:val="Quiet"/></w:style>
<w:style w:type="character" w:styleId="Mute"><w:name w:val="Mute"/><w:rPr>${properties}</w:rPr></w:style></w:styles>`;

  it.each([
    ['a style', paragraph(run('Seen.'), '<w:pStyle w:val="Quiet"/>')],
    ['a style on which its own is based', paragraph(run('Seen.'), '<w:pStyle w:val="Quieter"/>')],
    ['a style of letters', paragraph(run('Seen.', '<w:rStyle w:val="Mute"/>'))],
  ])('are told though %s hides them', async (_, body) => {
    const codes = async (properties: string) =>
      (await readFileContent('a.docx', docxOf(body, { 'word/styles.xml': styles(properties) }))).content.issues.map((issue) => issue.code);
    expect(await codes('<w:vanish/>')).toContain('hidden-text');
    expect(await codes('<w:vanish w:val="0"/>')).not.toContain('hidden-text');
    expect(await codes('')).not.toContain('hidden-text');
  });
});

describe('an archive whose part leads out of it', () => {
  it.each(['../evil.txt', 'word/../../evil.txt', '/etc/evil'])('is refused and says so: %s', async (name) => {
    const bytes = zipOf({ ...Object.fromEntries(Object.entries(unzipSync(docxOf(paragraph(run('Close.')))))), [name]: 'x' });
    await expect(readFileContent('a.docx', bytes)).rejects.toMatchObject({ code: 'archive-climbs', message: expect.stringContaining('leads out of it') });
  });
});

describe('XML of other sorts', () => {
  it.each([
    ['a web page', '<html xmlns="http://www.w3.org/1999/xhtml"/>', 'ending .html'],
    ['a drawing', '<s:svg xmlns:s="http://www.w3.org/2000/svg"/>', 'a drawing'],
    ['anything', '<stock><gate/></stock>', 'models as XMI'],
  ])('is named for what it is: %s', async (_, xml, words) => {
    await expect(readFileContent('a.xml', Buffer.from(xml))).rejects.toMatchObject({ message: expect.stringContaining(words) });
  });
});
