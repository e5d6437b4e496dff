import type { ReportBody } from '@coomb/contract';
import {
  AlignmentType,
  Bookmark,
  BorderStyle,
  Document,
  Footer,
  HeadingLevel,
  ImageRun,
  Packer,
  PageBreak,
  PageNumber,
  Paragraph,
  ShadingType,
  Table,
  TableCell,
  TableOfContents,
  TableRow,
  TextRun,
  VerticalAlign,
  WidthType,
} from 'docx';
import { stateWords } from '../check/figures/state-figures.js';
import { buildChartPicture } from './chart-picture.js';
import { mendContents } from './mend-contents.js';
import { chartOrder, paperColours } from './palette.js';
import { percent } from './report-page.js';

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
          ...buildMatrix(body),
        ],
      },
    ],
  });
  return mendContents(await Packer.toBuffer(document));
}

function buildCover(number: number, body: ReportBody): (Paragraph | TableOfContents)[] {
  return [
    new Paragraph({ spacing: { before: 2400 }, children: [new TextRun({ text: body.project, size: 28, color: '55594C' })] }),
    new Paragraph({
      spacing: { after: 240 },
      border: { bottom: { style: BorderStyle.SINGLE, size: 24, color: '5B7F3A', space: 8 } },
      children: [new TextRun({ text: body.title, size: 56, bold: true })],
    }),
    new Paragraph(`Report ${number} · ${date(body.at)} UTC · ${body.person} · as of change ${body.seq}`),
    ...body.note
      .split('\n')
      .filter(Boolean)
      .map((line) => new Paragraph({ spacing: { before: 160 }, text: line })),
    new Paragraph({ children: [new PageBreak()] }),
    new Paragraph({ spacing: { after: 160 }, children: [new TextRun({ text: 'Contents', size: 32, bold: true, color: '2F4A1A' })] }),
    new TableOfContents('Contents', {
      hyperlink: true,
      headingStyleRange: '1-2',
      cachedEntries: findTitles(body).map((title) => ({ title, level: 1, href: anchorOf(title) })),
    }),
  ];
}

/** Headings of the parts a report has; the table of contents shows them even before an office program counts pages. */
function findTitles(body: ReportBody): string[] {
  const hasChart = buildChartPicture(body) !== undefined;
  return ['Summary', ...(hasChart ? ['Verification by collection'] : []), 'Coverage', ...(body.since ? ['What changed'] : []), 'Gaps', 'Trace matrix'];
}

const anchorOf = (title: string) => `part_${title.replace(/\W+/g, '_').toLowerCase()}`;

const heading = (text: string, breakBefore = false) =>
  new Paragraph({
    heading: HeadingLevel.HEADING_1,
    pageBreakBefore: breakBefore,
    children: [new Bookmark({ id: anchorOf(text), children: [new TextRun(text)] })],
  });

function table(head: string[], rows: Cell[][], widths: number[]): Table {
  const total = widths.reduce((sum, width) => sum + width, 0);
  const columnWidths = widths.map((width) => Math.round((width / total) * 9000));
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
          children: [new TextRun({ text, bold: bold ?? header, size: head.length > 5 ? 15 : 18 })],
        }),
      ],
    });
  };
  const isRight = (column: number) => rows.some((row) => typeof row[column] === 'object' && row[column].right === true);
  const line = { style: BorderStyle.SINGLE, size: 4, color: 'CFC7B6' };
  const none = { style: BorderStyle.NONE, size: 0, color: 'auto' };
  return new Table({
    width: { size: 9000, type: WidthType.DXA },
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
    new Paragraph({ spacing: { after: 160 }, text: `${total} requirements and needs; test cases: ${results}.` }),
    table(
      ['State', 'Count', 'Share', 'Meaning'],
      states
        .filter((one) => one.count > 0)
        .map((one) => [{ text: stateWords[one.state].label, bold: true }, right(one.count), right(percent(one.count, total)), stateWords[one.state].explains]),
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
    right(percent(rule.counts.met + rule.counts.waived, rule.applicable)),
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
