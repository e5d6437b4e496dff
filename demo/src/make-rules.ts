import {
  AlignmentType,
  CommentRangeEnd,
  CommentRangeStart,
  CommentReference,
  DeletedTextRun,
  Document,
  FootnoteReferenceRun,
  HeadingLevel,
  InsertedTextRun,
  LevelFormat,
  Packer,
  Paragraph,
  type ParagraphChild,
  Table,
  TableCell,
  TableRow,
  TextRun,
} from 'docx';

const by = { author: 'Ida Fell', date: '2026-09-14T09:00:00Z' };
const CLAUSES = 'clauses';

/** A rule: plain words, or pieces with changes that somebody tracked, a footnote or a comment. */
type Piece = string | { came: string } | { went: string } | { note: number } | { comment: number };

const chapters: { title: string; sections: { title: string; rules: Piece[][] }[] }[] = [
  {
    title: 'Persons',
    sections: [
      {
        title: 'Lock keepers',
        rules: [
          [
            'A lock keeper must hold the keeper’s certificate',
            { note: 1 },
            '. The certificate must be renewed every ',
            { went: 'five' },
            { came: 'three' },
            ' years.',
          ],
          ['During a flood watch two keepers must be on site. Traces to NEED-002 and NEED-106.'],
          ['A keeper who is alone must report to the control room every ', { went: 'two hours' }, { came: 'hour' }, '. Traces to NEED-106.'],
        ],
      },
      {
        title: 'Visitors',
        rules: [
          ['Visitors must stay behind the yellow line while a gate moves. Traces to NEED-105.'],
          [{ came: 'Dogs must be kept on a lead on the lock island.' }],
          [{ went: 'Anglers may use the downstream wall at any hour.' }],
        ],
      },
    ],
  },
  {
    title: 'Passage of boats',
    sections: [
      {
        title: 'Order of passage',
        rules: [
          ['Boats on rescue must pass first. Freight comes before pleasure boats. Traces to NEED-003.'],
          ['No boat must enter the lock while the upper gate moves', { comment: 0 }, '. Part of OR-2.1.1.'],
          ['The keeper must close the lock when the flow exceeds 40 m³/s', { note: 2 }, '. Traces to NEED-001, NEED-004.'],
        ],
      },
      {
        title: 'Signals',
        rules: [
          ['A red light must show whenever entry is forbidden; it must be seen at 200 m. Traces to NEED-999.'],
          ['The horn is sounded twice before a gate moves.'],
        ],
      },
    ],
  },
];

/** Rules of operation as a standard writes them: numbered clauses with *must*, phrases that trace, footnotes, a comment, changes of the last meeting tracked. */
export function makeRules(): Promise<Buffer> {
  const heading = (text: string, level: 0 | 1) =>
    new Paragraph({ text, heading: level === 0 ? HeadingLevel.HEADING_1 : HeadingLevel.HEADING_2, numbering: { reference: CLAUSES, level } });
  const children = [
    new Paragraph({ text: 'Rules of operation', heading: HeadingLevel.TITLE }),
    new Paragraph('Larkbeck and Otterby River Trust (invented). Draft for the autumn meeting; changes are tracked.'),
    ...chapters.flatMap(({ title, sections }) => [
      heading(title, 0),
      ...sections.flatMap((section) => [
        heading(section.title, 1),
        ...section.rules.map((pieces) => new Paragraph({ numbering: { reference: CLAUSES, level: 2 }, children: pieces.flatMap(buildPiece) })),
      ]),
    ]),
    new Paragraph({ text: 'Limits by site', heading: HeadingLevel.HEADING_1, numbering: { reference: CLAUSES, level: 0 } }),
    buildLimits(),
  ];
  const level = (at: number, text: string) => ({ level: at, format: LevelFormat.DECIMAL, text, alignment: AlignmentType.LEFT });
  return Packer.toBuffer(
    new Document({
      numbering: { config: [{ reference: CLAUSES, levels: [level(0, '%1'), level(1, '%1.%2'), level(2, '%1.%2.%3')] }] },
      footnotes: {
        1: { children: [new Paragraph('Issued by the trust after two days of training at Otterby.')] },
        2: { children: [new Paragraph('Mean of ten minutes at the bridge gauge.')] },
      },
      comments: {
        children: [{ id: 0, author: 'Tom Garth', date: new Date('2026-09-15T10:00:00Z'), children: [new Paragraph('And while the lower gate moves?')] }],
      },
      sections: [{ children }],
    }),
  );
}

function buildPiece(piece: Piece, index: number): ParagraphChild[] {
  if (typeof piece === 'string') return [new TextRun(piece)];
  if ('came' in piece) return [new InsertedTextRun({ id: index + 1, ...by, text: piece.came })];
  if ('went' in piece) return [new DeletedTextRun({ id: index + 1, ...by, text: piece.went })];
  if ('note' in piece) return [new FootnoteReferenceRun(piece.note)];
  return [new CommentRangeStart(piece.comment), new CommentRangeEnd(piece.comment), new TextRun({ children: [new CommentReference(piece.comment)] })];
}

/** One frame with a table of its own in it, as such documents like to have. */
function buildLimits(): Table {
  const cell = (children: (Paragraph | Table)[]) => new TableCell({ children });
  const row = (...texts: string[]) => new TableRow({ children: texts.map((text) => cell([new Paragraph(text)])) });
  const inner = new Table({
    rows: [
      row('ID', 'Requirement', 'Priority'),
      row('OR-L1', 'At Larkbeck the pool must stay within 0.05 m of the set level.', 'High'),
      row('OR-L2', 'At Otterby the chamber must be emptied within 12 minutes.', 'Medium'),
    ],
  });
  return new Table({
    rows: [new TableRow({ children: [cell([new Paragraph('Limits that hold at each site:'), inner, new Paragraph('Other sites set their own.')])] })],
  });
}
