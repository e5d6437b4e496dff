import type { ReportBody } from '@coomb/contract';
import { counted, sharePercent, stateWords } from '@coomb/core';
import {
  AlignmentType,
  Bookmark,
  BorderStyle,
  Document,
  Footer,
  HeadingLevel,
  ImageRun,
  InternalHyperlink,
  LeaderType,
  Packer,
  PageBreak,
  PageNumber,
  PageReference,
  Paragraph,
  ShadingType,
  Tab,
  Table,
  TableCell,
  TableRow,
  TabStopType,
  TextRun,
  VerticalAlign,
  WidthType,
} from 'docx';
import { buildChartPicture } from './chart-picture.js';
import { chartOrder, paperColours } from './palette.js';
import { describeParts } from './report-page.js';

const date = (iso: string) => new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeStyle: 'short', timeZone: 'UTC' }).format(new Date(iso));
const SERIF = 'Georgia';
type Cell = string | { text: string; fill?: string; bold?: boolean; right?: boolean; span?: number };

/** The report as an Office Open XML document with a table of contents over its headings. */
export async function buildReportDocument(number: number, body: ReportBody): Promise<Buffer> {
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
          ...buildCover(number, body),
          ...buildSummary(body),
          ...buildChart(body),
          ...buildCoverage(body),
          ...buildChanges(body),
          ...buildGaps(body),
          ...(body.matrix.rows.length > 0 ? buildMatrix(body) : []),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
}

function buildCover(number: number, body: ReportBody): Paragraph[] {
  return [
    new Paragraph({ spacing: { before: 2400 }, children: [new TextRun({ text: body.project, size: 28, color: '55594C' })] }),
    new Paragraph({
      spacing: { after: 240 },
      border: { bottom: { style: BorderStyle.SINGLE, size: 24, color: '5B7F3A', space: 8 } },
      children: [new TextRun({ text: body.title, size: 56, bold: true })],
    }),
    new Paragraph(`Report ${number} · ${date(body.at)} UTC · ${body.person} · as of change ${body.seq}`),
    ...(body.parts ? [new Paragraph({ spacing: { before: 80 }, text: `About ${describeParts(body.parts)}.` })] : []),
    ...body.note
      .split('\n')
      .filter(Boolean)
      .map((line) => new Paragraph({ spacing: { before: 160 }, text: line })),
    new Paragraph({ children: [new PageBreak()] }),
    new Paragraph({ spacing: { after: 160 }, children: [new TextRun({ text: 'Contents', size: 32, bold: true, color: '2F4A1A' })] }),
    ...findTitles(body).map(buildContentsLine),
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

/** Headings of the parts that a report has. */
function findTitles(body: ReportBody): string[] {
  const hasChart = buildChartPicture(body) !== undefined;
  return [
    'Summary',
    ...(hasChart ? ['Verification by collection'] : []),
    'Coverage',
    ...(body.since ? ['What changed'] : []),
    'Gaps',
    ...(body.matrix.rows.length > 0 ? ['Trace matrix'] : []),
  ];
}

const anchorOf = (title: string) => `part_${title.replace(/\W+/g, '_').toLowerCase()}`;

const heading = (text: string, breakBefore = false) =>
  new Paragraph({
    heading: HeadingLevel.HEADING_1,
    pageBreakBefore: breakBefore,
    children: [new Bookmark({ id: anchorOf(text), children: [new TextRun(text)] })],
  });

const TABLE_WIDTH = 9000;

/** Widths in twentieths of a point: the shares asked for, but no column narrower than the longest word of its head, set bold. */
export function fitWidths(head: readonly string[], shares: readonly number[], halfPoints: number): number[] {
  const total = shares.reduce((sum, share) => sum + share, 0);
  const wanted = shares.map((share) => Math.round((share / total) * TABLE_WIDTH));
  // A bold letter of the serif is at most about two thirds as wide as the type is high, taken over a word; the cell's margins come to it.
  const least = head.map((text) => Math.ceil(Math.max(...text.split(/\s+/).map((word) => word.length)) * halfPoints * 10 * 0.66) + 140);
  const missing = wanted.reduce((sum, width, column) => sum + Math.max(0, least[column]! - width), 0);
  const spare = wanted.reduce((sum, width, column) => sum + Math.max(0, width - least[column]!), 0);
  return wanted.map((width, column) =>
    width < least[column]! ? least[column]! : Math.round(width - (missing * (width - least[column]!)) / Math.max(1, spare)),
  );
}

function table(head: string[], rows: Cell[][], widths: number[]): Table {
  const size = head.length > 5 ? 15 : 18;
  const columnWidths = fitWidths(head, widths, size);
  const make = (cell: Cell, column: number, header: boolean) => {
    const { text, fill, bold, right, span } = typeof cell === 'string' ? ({ text: cell } as Exclude<Cell, string>) : cell;
    return new TableCell({
      width: { size: columnWidths[column]!, type: WidthType.DXA },
      verticalAlign: VerticalAlign.TOP,
      margins: { top: 50, bottom: 50, left: 60, right: 60 },
      ...(span && { columnSpan: span }),
      ...((fill || header) && { shading: { type: ShadingType.CLEAR, fill: fill ?? 'EFE9DC', color: 'auto' } }),
      children: [
        new Paragraph({
          ...(right && { alignment: AlignmentType.RIGHT }),
          children: [new TextRun({ text, bold: bold ?? header, size })],
        }),
      ],
    });
  };
  const isRight = (column: number) => rows.some((row) => typeof row[column] === 'object' && row[column].right === true);
  const line = { style: BorderStyle.SINGLE, size: 4, color: 'CFC7B6' };
  const none = { style: BorderStyle.NONE, size: 0, color: 'auto' };
  return new Table({
    width: { size: TABLE_WIDTH, type: WidthType.DXA },
    columnWidths,
    borders: { top: line, bottom: line, insideHorizontal: line, left: none, right: none, insideVertical: none },
    rows: [
      new TableRow({ tableHeader: true, children: head.map((text, column) => make({ text, right: isRight(column) }, column, true)) }),
      ...rows.map((row) => new TableRow({ cantSplit: true, children: row.map((cell, column) => make(cell, column, false)) })),
    ],
  });
}

const right = (value: string | number): Cell => ({ text: String(value), right: true });

function buildSummary({ readiness }: ReportBody): (Paragraph | Table)[] {
  const states = readiness.states.filter((one) => one.state !== 'notApplicable');
  const total = states.reduce((sum, one) => sum + one.count, 0);
  const results = readiness.results.map((one) => `${one.count} ${one.label.toLowerCase().replace('tests ', '')}`).join(', ');
  return [
    heading('Summary', true),
    new Paragraph({ spacing: { after: 160 }, text: `${counted(total, 'requirement or need', 'requirements and needs')}; test cases: ${results}.` }),
    table(
      ['State', 'Count', 'Share', 'Meaning'],
      states
        .filter((one) => one.count > 0)
        .map((one) => [
          { text: stateWords[one.state].label, bold: true },
          right(one.count),
          right(sharePercent(one.count, total)),
          stateWords[one.state].ofMany,
        ]),
      [18, 9, 11, 62],
    ),
  ];
}

function buildChart(body: ReportBody): (Paragraph | Table)[] {
  const picture = buildChartPicture(body);
  if (!picture) return [];
  const rows = body.readiness.collections
    .filter((collection) => picture.names.includes(collection.name))
    .map((collection): Cell[] => [collection.name, ...chartOrder.map((state) => right(collection.states[state]))]);
  return [
    heading('Verification by collection'),
    new Paragraph({
      spacing: { after: 160 },
      children: [
        new ImageRun({
          type: 'png',
          data: picture.bytes,
          transformation: { width: 600, height: Math.round((600 * picture.height) / picture.width) },
          altText: {
            name: 'chart',
            title: 'Verification by collection',
            description: `One bar per collection, from top: ${picture.names.join(', ')}. The numbers stand in the table below.`,
          },
        }),
      ],
    }),
    table(['Collection', ...chartOrder.map((state) => stateWords[state].label)], rows, [22, ...chartOrder.map(() => 12)]),
    new Paragraph({
      spacing: { before: 80 },
      children: chartOrder.flatMap((state) => [
        new TextRun({ text: '■ ', color: paperColours[state] }),
        new TextRun({ text: `${stateWords[state].label}   `, size: 18 }),
      ]),
    }),
  ];
}

function buildCoverage({ readiness }: ReportBody): (Paragraph | Table)[] {
  const rows = readiness.rules.map((rule): Cell[] => [
    { text: rule.label, bold: true },
    rule.sentence,
    right(rule.counts.met),
    right(rule.counts.suspect),
    right(rule.counts.waived),
    right(rule.counts.notMet),
    right(sharePercent(rule.counts.met + rule.counts.waived, rule.applicable)),
  ]);
  return [
    heading('Coverage'),
    table(['Rule', 'In words', 'Met', 'By suspect links only', 'Waived', 'Not met', 'Met or waived'], rows, [17, 31, 8, 13, 10, 9, 12]),
  ];
}

function buildChanges(body: ReportBody): (Paragraph | Table)[] {
  if (!body.since) return [];
  const moved = body.moved.map((one): Cell[] => [
    one.label,
    right(one.before),
    right(one.now),
    right(`${one.now > one.before ? '+' : '−'}${Math.abs(one.now - one.before)}`),
  ]);
  return [
    heading('What changed'),
    new Paragraph({ spacing: { after: 160 }, text: `Since report ${body.since.number} of ${date(body.since.at)} UTC.` }),
    ...(moved.length ? [table(['Figure', 'Then', 'Now', 'Moved'], moved, [55, 15, 15, 15]), new Paragraph('')] : [new Paragraph('No figure moved.')]),
    ...(body.changed.length
      ? [
          table(
            ['Item', 'Title', 'What happened'],
            body.changed.map((one) => [one.reference, one.title, one.what]),
            [18, 60, 22],
          ),
        ]
      : [new Paragraph('No item changed.')]),
  ];
}

function buildGaps(body: ReportBody): (Paragraph | Table)[] {
  if (body.gaps.length === 0) return [heading('Gaps'), new Paragraph('None: every rule is met or waived, and no test fails.')];
  return [
    heading('Gaps'),
    table(
      ['Item', 'Title', 'Why'],
      body.gaps.map((gap) => [gap.item.reference, gap.item.title, gap.why.join('; ')]),
      [15, 50, 35],
    ),
  ];
}

function buildMatrix(body: ReportBody): (Paragraph | Table)[] {
  const rows = body.matrix.rows.map((row): Cell[] =>
    row.heading
      ? [{ text: row.title, bold: true, fill: 'EFE9DC', span: 5 }]
      : [row.reference, row.title, stateWords[row.state].label, row.design.join(', ') || '–', row.tests.join(', ') || '–'],
  );
  return [heading('Trace matrix', true), table(['Requirement', 'Title', 'State', 'Satisfied or refined by', 'Verified by'], rows, [14, 36, 12, 19, 19])];
}
