import { deflateSync } from 'node:zlib';
import { docxOf, run, xlsxOf, zipOf } from '@coomb/formats/testing';

const REQIF = 'xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd"';
const times = (count: number, make: (index: number) => string) => Array.from({ length: count }, (_, index) => make(index)).join('');
const row = (index: number, cells: string) => `<row r="${index + 1}">${cells}</row>`;
/** Text that packs badly enough to pass for a document: about a hundred times smaller. */
const dull = (count: number) =>
  times(count, (index) => `<w:p><w:r><w:t>${'the gate shall hold the level of the pool while it is in use '.repeat(12)}${index}</w:t></w:r></w:p>`);

/** A PDF of pages that each draw the same content. */
function pdfOf(pages: number, content: Uint8Array, more = ''): Buffer {
  const packed = deflateSync(content);
  const kids = times(pages, (index) => `${10 + index} 0 R `);
  const chunks: Buffer[] = [];
  const offsets: [number, number][] = [];
  let length = 0;
  const put = (part: string | Buffer) => {
    const bytes = typeof part === 'string' ? Buffer.from(part, 'latin1') : part;
    chunks.push(bytes);
    length += bytes.length;
  };
  const object = (number: number, body: string | Buffer) => {
    offsets.push([number, length]);
    put(`${number} 0 obj\n`);
    put(body);
    put('\nendobj\n');
  };
  put('%PDF-1.7\n');
  object(1, '<< /Type /Catalog /Pages 2 0 R >>');
  object(2, `<< /Type /Pages /Kids [${kids}] /Count ${pages} ${more}>>`);
  object(3, '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>');
  object(4, Buffer.concat([Buffer.from(`<< /Length ${packed.length} /Filter /FlateDecode >>\nstream\n`), packed, Buffer.from('\nendstream')]));
  for (let page = 0; page < pages; page++)
    object(10 + page, '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Resources << /Font << /F 3 0 R >> >> /Contents 4 0 R >>');
  const at = length;
  put(`xref\n0 1\n0000000000 65535 f \n`);
  for (const [number, offset] of offsets) put(`${number} 1\n${String(offset).padStart(10, '0')} 00000 n \n`);
  put(`trailer\n<< /Size ${10 + pages} /Root 1 0 R >>\nstartxref\n${at}\n%%EOF\n`);
  return Buffer.concat(chunks);
}

const lines = (count: number) =>
  Buffer.from(`BT /F 10 Tf ${times(count, (index) => `1 0 0 1 50 ${700 - (index % 600)} Tm (The gate shall hold level ${index}.) Tj\n`)} ET`);

/** Files that are made to hang a reader or fill its memory, by name; each in its own process. */
export const hostileFiles: Record<string, { name: string; make: () => Uint8Array | string }> = {
  'document of 4 GB of blanks': { name: 'a.docx', make: () => docxOf(' '.repeat(500_000_000)) },
  'document that unpacks to 250 MB': { name: 'a.docx', make: () => docxOf(dull(330_000)) },
  'document of a million paragraphs': {
    name: 'a.docx',
    make: () => docxOf(times(1_000_000, (index) => `<w:p><w:r><w:t>${(index * 7919) % 1_000_003}</w:t></w:r></w:p>`)),
  },
  'paragraph of a million pieces': {
    name: 'a.docx',
    make: () => docxOf(`<w:p>${times(1_000_000, (index) => run(String((index * 7919) % 1_000_003), index % 2 ? '<w:b/>' : ''))}</w:p>`),
  },
  'tables in tables, a thousand deep': {
    name: 'a.docx',
    make: () => docxOf(`${'<w:tbl><w:tr><w:tc>'.repeat(1000)}<w:p/>${'</w:tc></w:tr></w:tbl>'.repeat(1000)}`),
  },
  'cells that span a billion columns': {
    name: 'a.docx',
    make: () =>
      docxOf(
        `<w:tbl>${times(2000, () => '<w:tr><w:tc><w:tcPr><w:gridSpan w:val="1000000000"/></w:tcPr><w:p><w:r><w:t>a</w:t></w:r></w:p></w:tc></w:tr>')}</w:tbl>`,
      ),
  },
  'table of a million cells': {
    name: 'a.docx',
    make: () =>
      docxOf(
        `<w:tbl>${times(50_000, (index) => `<w:tr>${times(20, (column) => `<w:tc><w:p><w:r><w:t>${(index * column * 7919) % 1_000_003}</w:t></w:r></w:p></w:tc>`)}</w:tr>`)}</w:tbl>`,
      ),
  },
  'workbook of 4 million different texts': {
    name: 'a.xlsx',
    make: () =>
      xlsxOf(
        {
          A: times(200_000, (index) =>
            row(
              index,
              times(20, (column) => `<c t="s"><v>${index * 20 + column}</v></c>`),
            ),
          ),
        },
        { 'xl/sharedStrings.xml': `<sst>${times(4_000_000, (index) => `<si><t>text ${index}</t></si>`)}</sst>` },
      ),
  },
  'workbook of 4 million texts in place': {
    name: 'a.xlsx',
    make: () =>
      xlsxOf({
        A: times(200_000, (index) =>
          row(
            index,
            times(20, (column) => `<c t="inlineStr"><is><t>${index * 20 + column} gate</t></is></c>`),
          ),
        ),
      }),
  },
  'workbook with a cell in its last corner': {
    name: 'a.xlsx',
    make: () => xlsxOf({ A: times(2000, (index) => `<row r="${index * 500 + 1}"><c r="XFD${index * 500 + 1}"><v>1</v></c></row>`) }),
  },
  'workbook merged from corner to corner': {
    name: 'a.xlsx',
    make: () =>
      zipOf({
        'xl/workbook.xml': '<workbook xmlns:r="r"><sheets><sheet name="A" r:id="r1"/></sheets></workbook>',
        'xl/_rels/workbook.xml.rels': '<Relationships><Relationship Id="r1" Target="worksheets/a.xml"/></Relationships>',
        'xl/worksheets/a.xml': `<worksheet><sheetData>${times(1000, (index) => row(index, '<c t="inlineStr"><is><t>a</t></is></c>'))}</sheetData><mergeCells>${'<mergeCell ref="A1:XFD1048576"/>'.repeat(2000)}</mergeCells></worksheet>`,
      }),
  },
  'PDF whose page unpacks to 1 GB': { name: 'a.pdf', make: () => pdfOf(1, Buffer.alloc(1_000_000_000, ' ')) },
  'PDF of a page with a million lines': { name: 'a.pdf', make: () => pdfOf(1, lines(1_000_000)) },
  'PDF of 3,000 pages of 2,000 lines': { name: 'a.pdf', make: () => pdfOf(3000, lines(2000)) },
  'PDF of 200,000 pages': { name: 'a.pdf', make: () => pdfOf(200_000, lines(1)) },
  'PDF whose pages go round in circles': {
    name: 'a.pdf',
    make: () => Buffer.from(pdfOf(1, lines(1)).toString('latin1').replace('/Kids [10 0 R ]', '/Kids [2 0 R  ]'), 'latin1'),
  },
  'values of 5 million columns': { name: 'a.csv', make: () => `a${',b'.repeat(5_000_000)}\n1` },
  'values with a quote that never ends': { name: 'a.csv', make: () => `a,b\n"${'the gate shall hold\n'.repeat(5_000_000)}` },
  'values of nothing but line ends': { name: 'a.csv', make: () => '\n'.repeat(50_000_000) },
  'Markdown of brackets': { name: 'a.md', make: () => '['.repeat(1_000_000) },
  'Markdown of unfinished emphasis': { name: 'a.md', make: () => '*a _b '.repeat(300_000) },
  'Markdown of back-ticks': { name: 'a.md', make: () => times(2500, (index) => `${'`'.repeat(index)} `) },
  'Markdown quoted a hundred thousand deep': { name: 'a.md', make: () => `${'>'.repeat(100_000)} a` },
  'Markdown of links in links': { name: 'a.md', make: () => `${'[a]('.repeat(200_000)}` },
  'page of elements that never end': { name: 'a.html', make: () => '<b><i><u>a'.repeat(1_000_000) },
  'page of half elements': { name: 'a.html', make: () => '<a <'.repeat(3_000_000) },
  'page of a table of 60 × 100,000 × 1,000': {
    name: 'a.html',
    make: () => `<table>${times(100_000, () => '<tr><td colspan="60" rowspan="1000">a</td></tr>')}</table>`,
  },
  'page of one word of 60 MB': { name: 'a.html', make: () => `<p>${'a'.repeat(60_000_000)}</p>` },
  'exchange with a million attributes': { name: 'a.reqif', make: () => `<REQ-IF ${REQIF} ${times(1_000_000, (index) => `a${index}="1" `)}/>` },
  'exchange of a value of 200 MB': { name: 'a.reqif', make: () => `<REQ-IF ${REQIF}><CORE-CONTENT a="${'b'.repeat(200_000_000)}"/></REQ-IF>` },
  'exchange that shows one object a million times': {
    name: 'a.reqif',
    make: () =>
      `<REQ-IF ${REQIF}><CORE-CONTENT><REQ-IF-CONTENT><SPEC-OBJECTS><SPEC-OBJECT IDENTIFIER="o"/></SPEC-OBJECTS><SPECIFICATIONS><SPECIFICATION IDENTIFIER="s"><CHILDREN>${'<SPEC-HIERARCHY><OBJECT><SPEC-OBJECT-REF>o</SPEC-OBJECT-REF></OBJECT></SPEC-HIERARCHY>'.repeat(1_000_000)}</CHILDREN></SPECIFICATION></SPECIFICATIONS></REQ-IF-CONTENT></CORE-CONTENT></REQ-IF>`,
  },
  'exchange of a million dangling relations': {
    name: 'a.reqif',
    make: () =>
      `<REQ-IF ${REQIF}><CORE-CONTENT><REQ-IF-CONTENT><SPEC-RELATIONS>${times(1_000_000, (index) => `<SPEC-RELATION IDENTIFIER="r${index}"><SOURCE><SPEC-OBJECT-REF>a${index}</SPEC-OBJECT-REF></SOURCE><TARGET><SPEC-OBJECT-REF>b</SPEC-OBJECT-REF></TARGET></SPEC-RELATION>`)}</SPEC-RELATIONS></REQ-IF-CONTENT></CORE-CONTENT></REQ-IF>`,
  },
  'model of a million elements': {
    name: 'a.xmi',
    make: () =>
      `<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20131001"><uml:Model>${times(1_000_000, (index) => `<packagedElement xmi:type="uml:Class" xmi:id="c${index}" name="C${index}"/>`)}</uml:Model></xmi:XMI>`,
  },
  'results of a million cases': {
    name: 'a.xml',
    make: () => `<testsuite>${times(1_000_000, (index) => `<testcase name="t${index}"><failure>no</failure></testcase>`)}</testsuite>`,
  },
  'archive of a hundred thousand files': {
    name: 'a.reqifz',
    make: () => zipOf(Object.fromEntries(Array.from({ length: 100_000 }, (_, index) => [`f${index}.reqif`, '<REQ-IF/>']))),
  },
  'sheet of half a million rows': {
    name: 'a.csv',
    make: () => `ID,Title,Requirement\n${times(500_000, (index) => `SYS-${index},Gate ${index},The gate shall hold level ${index}.\n`)}`,
  },
  'sheet of three hundred thousand rows': {
    name: 'a.csv',
    make: () => `ID,Title,Requirement\n${times(300_000, (index) => `SYS-${index},Gate ${index},The gate shall hold level ${index}.\n`)}`,
  },
  'lists nested a quarter of a million deep': { name: 'a.html', make: () => '<ul><li>'.repeat(250_000) },
  'bold in bold two hundred thousand times': { name: 'a.html', make: () => `<p>${'<b>'.repeat(200_000)}` },
  'lists nested in Markdown': { name: 'a.md', make: () => times(3000, (index) => `${'  '.repeat(index)}- a\n`) },
  'exchange of ten million characters that no XML may hold': { name: 'a.reqif', make: () => `<REQ-IF ${REQIF}>${'&#1;\u0001'.repeat(2_000_000)}</REQ-IF>` },
  'sheet of control characters': { name: 'a.csv', make: () => `a,b\n${times(100_000, () => '\u0001\u000b,\u0000\u0002\n')}` },
  'contents of a hundred thousand lines': { name: 'a.md', make: () => times(100_000, (index) => `Gate ${index} ..... ${index % 999}\n\n`) },
};
