import type { ReportBody } from '@coomb/contract';
import {
  AlignmentType,
  BorderStyle,
  Document,
  Footer,
  InternalHyperlink,
  LeaderType,
  Packer,
  PageBreak,
  PageNumber,
  PageReference,
  Paragraph,
  Tab,
  TabStopType,
  TextRun,
} from 'docx';
import type { Sheet } from './blocks/block.js';
import { readBlocks } from './blocks/index.js';
import { buildLegend } from './coated-run.js';
import { coatsOf } from './coats.js';
import { anchorOf, heading, TABLE_WIDTH } from './document-parts.js';
import { describeParts, sayDate } from './report-words.js';

const SERIF = 'Georgia';

/** The report as an Office Open XML document with a table of contents over its headings. */
export async function buildReportDocument(number: number, body: ReportBody): Promise<Buffer> {
  const coatOf = coatsOf(body);
  const sheet: Sheet = { body, item: (reference) => ({ words: [{ text: reference, coat: coatOf(reference) }] }), coatOf };
  const shown = readBlocks(body)
    .filter(({ block, data }) => block.isEmpty?.(data) !== true)
    .map(({ block, data }, index) => ({ title: block.title, block, data, isFirst: index === 0 }));
  const document = new Document({
    creator: 'Coomb',
    title: body.title,
    features: { updateFields: true },
    styles: {
      default: {
        document: { run: { font: SERIF, size: 21 } },
        heading1: { run: { font: SERIF, size: 32, bold: true, color: '2F4A1A' }, paragraph: { spacing: { before: 360, after: 160 } } },
      },
    },
    sections: [
      {
        footers: {
          default: new Footer({
            children: [
              new Paragraph({
                alignment: AlignmentType.RIGHT,
                children: [new TextRun({ children: [`${body.project} · report ${number} · page `, PageNumber.CURRENT] })],
              }),
            ],
          }),
        },
        children: [
          ...buildCover(
            number,
            body,
            shown.map(({ title }) => title),
          ),
          ...shown.flatMap(({ title, block, data, isFirst }) => [heading(title, isFirst || block.ownPage === true), ...block.document(data, sheet)]),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
}

function buildCover(number: number, body: ReportBody, titles: readonly string[]): Paragraph[] {
  return [
    new Paragraph({ spacing: { before: 2400 }, children: [new TextRun({ text: body.project, size: 28, color: '55594C' })] }),
    new Paragraph({
      spacing: { after: 240 },
      border: { bottom: { style: BorderStyle.SINGLE, size: 24, color: '5B7F3A', space: 8 } },
      children: [new TextRun({ text: body.title, size: 56, bold: true })],
    }),
    new Paragraph(`Report ${number} · ${sayDate(body.at)} UTC · ${body.person} · as of change ${body.seq}`),
    ...(body.parts ? [new Paragraph({ spacing: { before: 80 }, text: `About ${describeParts(body.parts)}.` })] : []),
    ...body.note
      .split('\n')
      .filter(Boolean)
      .map((line) => new Paragraph({ spacing: { before: 160 }, text: line })),
    ...buildLegend(body),
    new Paragraph({ children: [new PageBreak()] }),
    new Paragraph({ spacing: { after: 160 }, children: [new TextRun({ text: 'Contents', size: 32, bold: true, color: '2F4A1A' })] }),
    ...titles.map(buildContentsLine),
  ];
}

/**
 * A line of the contents. Its page number is a reference to the heading (ECMA-376 part 1, 17.16.5.49) that office programs work out when they
 * lay the document out; a table of contents would stay without numbers until somebody asks for it.
 */
function buildContentsLine(title: string): Paragraph {
  return new Paragraph({
    tabStops: [{ type: TabStopType.RIGHT, position: TABLE_WIDTH, leader: LeaderType.DOT }],
    spacing: { after: 80 },
    children: [
      new InternalHyperlink({ anchor: anchorOf(title), children: [new TextRun(title)] }),
      new TextRun({ children: [new Tab()] }),
      new PageReference(anchorOf(title), { hyperlink: true }),
    ],
  });
}
