import {
  AlignmentType,
  BorderStyle,
  Document,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableOfContents,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import { buildRiverPicture } from './river-picture.js';
import { type NumberedRequirement, numberChapters } from './requirements.js';

/** The system requirements of Larkbeck Weir as a word-processed document: headings, tables, labels, lists and pictures. */
export async function makeSpecification(chapters = numberChapters(), issue = 'issue 3'): Promise<Buffer> {
  const children: (Paragraph | Table | TableOfContents)[] = [
    new Paragraph({ text: 'Larkbeck Weir', heading: HeadingLevel.TITLE }),
    new Paragraph(`System requirements specification · ${issue} · Larkbeck and Otterby River Trust (invented)`),
    new TableOfContents('Contents', { hyperlink: true, headingStyleRange: '1-2' }),
    new Paragraph({ text: 'Scope', heading: HeadingLevel.HEADING_1 }),
    new Paragraph(
      'This specification covers the river weir at Larkbeck, the lock at Otterby, their gates and gauges, the control room and the flood-warning service.',
    ),
    new Paragraph({
      children: [
        new TextRun('The sites use the '),
        new TextRun({ text: 'same gate drive', bold: true }),
        new TextRun(' with different travel and load. Levels refer to the local datum; flows are in m³/s.'),
      ],
    }),
    picture('plan', 'Plan of the river from Otterby lock to Larkbeck weir', 0),
    new Paragraph('The specification is read together with:'),
    ...['the needs of residents, boaters and the flood authority,', 'the hydrological study of the valley,', 'the fault list of the installation.'].map(
      (text) => new Paragraph({ text, numbering: { reference: 'dots', level: 0 } }),
    ),
  ];
  chapters.forEach((chapter, index) => {
    children.push(new Paragraph({ text: chapter.title, heading: HeadingLevel.HEADING_1 }), new Paragraph(chapter.intro));
    if (index === 3) children.push(picture('gauges', 'Places of the five gauges', 1));
    for (const section of chapter.sections) {
      children.push(new Paragraph({ text: section.title, heading: HeadingLevel.HEADING_2 }));
      if (chapter.style === 'table') children.push(buildTable(section.requirements), new Paragraph(''));
      else for (const requirement of section.requirements) children.push(...(chapter.style === 'inline' ? buildInline(requirement) : buildHeaded(requirement)));
    }
  });
  children.push(new Paragraph({ text: 'Terms', heading: HeadingLevel.HEADING_1 }), buildTerms());
  const document = new Document({
    creator: 'Larkbeck and Otterby River Trust',
    title: 'Larkbeck Weir: system requirements',
    numbering: {
      config: [
        { reference: 'dots', levels: [{ level: 0, format: LevelFormat.BULLET, text: '•', alignment: AlignmentType.LEFT }] },
        { reference: 'steps', levels: [{ level: 0, format: LevelFormat.DECIMAL, text: '%1.', alignment: AlignmentType.LEFT }] },
      ],
    },
    sections: [{ children }],
  });
  return Packer.toBuffer(document);
}

function picture(name: string, text: string, variant: number): Paragraph {
  const { bytes, width, height } = buildRiverPicture(variant);
  return new Paragraph({
    children: [
      new ImageRun({ type: 'png', data: bytes, transformation: { width: width / 2, height: height / 2 }, altText: { name, title: text, description: text } }),
    ],
  });
}

function buildTable(requirements: NumberedRequirement[]): Table {
  const cell = (text: string, bold = false) =>
    new TableCell({ children: [new Paragraph({ children: [new TextRun({ text, bold })] })], margins: { left: 80, right: 80 } });
  const head = ['ID', 'Title', 'Requirement', 'Priority', 'Verification method', 'Derived from'];
  const line = { style: BorderStyle.SINGLE, size: 4, color: '999999' };
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    borders: { top: line, bottom: line, left: line, right: line, insideHorizontal: line, insideVertical: line },
    rows: [
      new TableRow({ tableHeader: true, children: head.map((text) => cell(text, true)) }),
      ...requirements.map(
        (one) => new TableRow({ children: [one.reference, one.title, one.text, one.priority, one.method, one.need].map((text) => cell(text)) }),
      ),
    ],
  });
}

function buildInline(one: NumberedRequirement): Paragraph[] {
  return [
    new Paragraph({ children: [new TextRun({ text: one.reference, bold: true }), new TextRun(`: ${one.text}`)] }),
    new Paragraph(`Title: ${one.title}`),
    new Paragraph(`Priority: ${one.priority}`),
    new Paragraph(`Verification method: ${one.method}`),
    new Paragraph(`Derived from: ${one.need}`),
  ];
}

function buildHeaded(one: NumberedRequirement): Paragraph[] {
  const paragraphs = [new Paragraph({ text: `${one.reference} ${one.title}`, heading: HeadingLevel.HEADING_3 }), new Paragraph(one.text)];
  if (one.title === 'Entry signals')
    for (const text of ['red: closed, or another boat is in the chamber;', 'red and green: make ready;', 'green: enter.'])
      paragraphs.push(new Paragraph({ text, numbering: { reference: 'dots', level: 0 } }));
  if (one.title === 'Equal levels before opening')
    for (const text of ['the paddles on the other side are shut,', 'the levels are equal,', 'the gate is unlocked.'])
      paragraphs.push(new Paragraph({ text, numbering: { reference: 'steps', level: 0 } }));
  return [
    ...paragraphs,
    new Paragraph(`Priority: ${one.priority}`),
    new Paragraph(`Verification method: ${one.method}`),
    new Paragraph(`Derived from: ${one.need}`),
  ];
}

function buildTerms(): Table {
  const row = (cells: string[]) => new TableRow({ children: cells.map((text) => new TableCell({ children: [new Paragraph(text)] })) });
  return new Table({
    rows: [
      row(['Term', 'Meaning']),
      row(['Pool', 'The river between lock and weir.']),
      row(['Head', 'Difference of level on the two sides of a gate.']),
      row(['Paddle', 'Small gate that lets water into the lock chamber or out of it.']),
    ],
  });
}
