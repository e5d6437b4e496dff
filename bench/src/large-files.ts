import { seeded } from '@coomb/core/testing';
import { linesOf, pdfOf } from '@coomb/formats/testing';
import ExcelJS from 'exceljs';
import { Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow } from 'docx';

const words = ['gate', 'level', 'weir', 'control', 'pool', 'drive', 'signal', 'alarm', 'river', 'flow'];

function sentences(count: number): string[] {
  const random = seeded(11);
  const word = () => words[Math.floor(random() * 10)]!;
  return Array.from(
    { length: count },
    () => `The ${word()} shall hold the ${word()} within ${Math.floor(random() * 90)} cm of the ${word()} while it is in use.`,
  );
}

/** A document of so many requirements: half of its sections hold tables, half numbered sentences with a label. */
export async function makeLargeDocument(requirements = 5000): Promise<Buffer> {
  const texts = sentences(requirements);
  let next = 0;
  const sentence = () => texts[next++]!;
  const cells = (texts: string[]) => new TableRow({ children: texts.map((text) => new TableCell({ children: [new Paragraph(text)] })) });
  const children: (Paragraph | Table)[] = [];
  for (let section = 0; section < requirements / 50; section++) {
    children.push(new Paragraph({ text: `Section ${section + 1}`, heading: HeadingLevel.HEADING_1 }));
    const own = Array.from({ length: 50 }, (_, index) => [`SYS-${section * 50 + index + 1}`, sentence(), 'High', 'Test']);
    if (section % 2) children.push(new Table({ rows: [cells(['ID', 'Requirement', 'Priority', 'Verification method']), ...own.map(cells)] }));
    else for (const [id, text] of own) children.push(new Paragraph(`${id}: ${text}`), new Paragraph('Priority: High'));
  }
  return Packer.toBuffer(new Document({ sections: [{ children }] }));
}

/** ReqIF of so many objects in chapters of fifty, each object related to the one before. */
export function makeLargeReqif(count: number): Buffer {
  const texts = sentences(count);
  const stamp = 'LAST-CHANGE="2026-10-01T10:00:00Z"';
  const definition = (kind: string, id: string) => `<DEFINITION><ATTRIBUTE-DEFINITION-${kind}-REF>${id}</ATTRIBUTE-DEFINITION-${kind}-REF></DEFINITION>`;
  const objects = texts.map(
    (text, i) =>
      `<SPEC-OBJECT IDENTIFIER="o-${i}" ${stamp}><VALUES><ATTRIBUTE-VALUE-STRING THE-VALUE="SYS-${i}">${definition('STRING', 'a-id')}</ATTRIBUTE-VALUE-STRING><ATTRIBUTE-VALUE-XHTML>${definition('XHTML', 'a-text')}<THE-VALUE><xhtml:div>${text}</xhtml:div></THE-VALUE></ATTRIBUTE-VALUE-XHTML></VALUES><TYPE><SPEC-OBJECT-TYPE-REF>t</SPEC-OBJECT-TYPE-REF></TYPE></SPEC-OBJECT>`,
  );
  const node = (i: number, children = '') =>
    `<SPEC-HIERARCHY IDENTIFIER="h-${i}" ${stamp}><OBJECT><SPEC-OBJECT-REF>o-${i}</SPEC-OBJECT-REF></OBJECT>${children && `<CHILDREN>${children}</CHILDREN>`}</SPEC-HIERARCHY>`;
  const nodes: string[] = [];
  for (let i = 0; i < count; i += 50) nodes.push(node(i, Array.from({ length: Math.min(49, count - i - 1) }, (_, j) => node(i + j + 1)).join('')));
  const attribute = (kind: string, id: string, name: string) =>
    `<ATTRIBUTE-DEFINITION-${kind} IDENTIFIER="${id}" ${stamp} LONG-NAME="${name}"><TYPE><DATATYPE-DEFINITION-${kind}-REF>d-${kind}</DATATYPE-DEFINITION-${kind}-REF></TYPE></ATTRIBUTE-DEFINITION-${kind}>`;
  return Buffer.from(
    `<?xml version="1.0" encoding="UTF-8"?><REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd" xmlns:xhtml="http://www.w3.org/1999/xhtml"><CORE-CONTENT><REQ-IF-CONTENT><DATATYPES><DATATYPE-DEFINITION-STRING IDENTIFIER="d-STRING"/><DATATYPE-DEFINITION-XHTML IDENTIFIER="d-XHTML"/></DATATYPES><SPEC-TYPES><SPEC-OBJECT-TYPE IDENTIFIER="t" LONG-NAME="Requirement"><SPEC-ATTRIBUTES>${attribute('STRING', 'a-id', 'ReqIF.ForeignID')}${attribute('XHTML', 'a-text', 'ReqIF.Text')}</SPEC-ATTRIBUTES></SPEC-OBJECT-TYPE></SPEC-TYPES><SPEC-OBJECTS>${objects.join('\n')}</SPEC-OBJECTS><SPECIFICATIONS><SPECIFICATION IDENTIFIER="s" LONG-NAME="All"><CHILDREN>${nodes.join('\n')}</CHILDREN></SPECIFICATION></SPECIFICATIONS></REQ-IF-CONTENT></CORE-CONTENT></REQ-IF>`,
  );
}

export function makeLargeCsv(count: number): Buffer {
  const rows = sentences(count).map(
    (text, i) => `SYS-${i},Title ${i},"${text}",High,"Test, Analysis",Ada Brook,2026-10-${String(1 + (i % 28)).padStart(2, '0')},NEED-${i % 400}`,
  );
  return Buffer.from(`ID,Title,Text,Priority,Verification method,Owner,Due,Derived from\n${rows.join('\n')}\n`);
}

/** A workbook of so many rows and twenty columns. */
export async function makeLargeXlsx(count: number): Promise<Buffer> {
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet('Requirements');
  sheet.addRow(['ID', 'Title', 'Text', 'Priority', ...Array.from({ length: 16 }, (_, i) => `Column ${i}`)]);
  for (const [i, text] of sentences(count).entries())
    sheet.addRow([`SYS-${i}`, `Title ${i}`, text, 'High', ...Array.from({ length: 16 }, (_, j) => (j % 2 ? i * j : `value ${j}`))]);
  return Buffer.from(await workbook.xlsx.writeBuffer());
}

/** Markdown of so many requirements under headings of fifty. */
export function makeLargeMarkdown(count: number): Buffer {
  const lines = sentences(count).map((text, i) => `${i % 50 ? '' : `## Section ${i / 50 + 1}\n\n`}SYS-${i}: ${text} **Always.**\n\nPriority: High\n`);
  return Buffer.from(`# Requirements\n\n${lines.join('\n')}`);
}

/** The same as a web page. */
export function makeLargeHtml(count: number): Buffer {
  const parts = sentences(count).map(
    (text, i) => `${i % 50 ? '' : `<h2>Section ${i / 50 + 1}</h2>`}<p>SYS-${i}: ${text} <b>Always.</b></p><p>Priority: High</p>`,
  );
  return Buffer.from(`<!doctype html><html><body><h1>Requirements</h1>${parts.join('\n')}</body></html>`);
}

/** A PDF of so many requirements, forty a page. */
export function makeLargePdf(count: number): Buffer {
  const texts = sentences(count);
  const pages = Array.from({ length: Math.ceil(count / 40) }, (_, page) =>
    linesOf([
      [`Section ${page + 1}`, 16],
      ['', 0],
      ...texts.slice(page * 40, page * 40 + 40).map((text, i): [string, number] => [`SYS-${page * 40 + i}: ${text.slice(0, 70)}`, 9]),
    ]),
  );
  return pdfOf(pages);
}

/** An XMI model of so many elements: packages of fifty blocks, each with a part and a dependency. */
export function makeLargeXmi(count: number): Buffer {
  const element = (type: string, id: string, name: string, inner = '') =>
    `<packagedElement xmi:type="uml:${type}" xmi:id="${id}" name="${name}">${inner}</packagedElement>`;
  const texts = sentences(count / 2);
  const block = (i: number) =>
    `${element(
      'Class',
      `b${i}`,
      `Block ${i}`,
      `<ownedAttribute xmi:type="uml:Property" xmi:id="p${i}" name="part" aggregation="composite" type="b${i + 1}"/><ownedComment xmi:type="uml:Comment" xmi:id="c${i}" body="${texts[i]}"/>`,
    )}<packagedElement xmi:type="uml:Dependency" xmi:id="d${i}" client="b${i}" supplier="b${Math.floor(i / 2)}"/>`;
  const packages = Array.from({ length: Math.ceil(texts.length / 50) }, (_, at) =>
    element('Package', `k${at}`, `Package ${at}`, Array.from({ length: Math.min(50, texts.length - at * 50) }, (_, i) => block(at * 50 + i)).join('\n')),
  );
  return Buffer.from(
    `<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20131001"><uml:Model xmi:type="uml:Model" xmi:id="m" name="Weir">${packages.join('\n')}</uml:Model></xmi:XMI>`,
  );
}

/** Results of so many tests in suites of fifty, every tenth failed. */
export function makeLargeJunit(count: number): Buffer {
  const cases = sentences(count).map(
    (text, i) => `<testcase classname="weir" name="TC-${i} opens" time="0.${i % 10}">${i % 10 ? '' : `<failure message="late">${text}</failure>`}</testcase>`,
  );
  const suites = Array.from(
    { length: Math.ceil(count / 50) },
    (_, at) => `<testsuite name="Suite ${at}">${cases.slice(at * 50, at * 50 + 50).join('\n')}</testsuite>`,
  );
  return Buffer.from(`<?xml version="1.0"?><testsuites name="Rig">${suites.join('\n')}</testsuites>`);
}

export const makers = {
  docx: makeLargeDocument,
  reqif: async (count: number) => makeLargeReqif(count),
  csv: async (count: number) => makeLargeCsv(count),
  xlsx: makeLargeXlsx,
  md: async (count: number) => makeLargeMarkdown(count),
  html: async (count: number) => makeLargeHtml(count),
  pdf: async (count: number) => makeLargePdf(count),
  xmi: async (count: number) => makeLargeXmi(count),
  xml: async (count: number) => makeLargeJunit(count),
};
