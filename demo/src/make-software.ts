import ExcelJS from 'exceljs';

type Row = [outline: string, type: string, id: string, title: string, text: string, priority: string, from: string, state: string];

const rows: Row[] = [
  ['1', 'Heading', '', 'Regulation', '', '', '', ''],
  ['1.1', 'Requirement', 'SW-101', 'Level filter', 'The regulator shall average level readings over 60 s.', 'High', 'SYS-006', 'Agreed'],
  [
    '1.2',
    'Requirement',
    'SW-102',
    'Set level check',
    'The regulator shall refuse a set level outside 11.80 m to 12.60 m.',
    'High',
    'SYS-002, SYS-003',
    'Agreed',
  ],
  ['1.3', 'Requirement', 'SW-103', 'Opening split', 'The regulator shall give each gate the mean opening plus at most 0.05 m.', 'Medium', 'SYS-008', 'Agreed'],
  ['1.4', 'Requirement', 'SW-104', 'Old set point', 'The regulator shall read the set point from the paper tape.', 'Low', '', 'Dropped'],
  ['2', 'Heading', '', 'Messages', '', '', '', ''],
  ['2.1', 'Heading', '', 'Incoming', '', '', '', ''],
  ['2.1.1', 'Requirement', 'SW-201', 'Signed orders', 'The message handler shall drop every order whose signature does not fit.', 'High', 'SYS-063', 'Agreed'],
  ['2.1.2', 'Requirement', 'SW-202', 'Order age', 'The message handler shall drop orders older than 10 s.', 'High', 'SYS-063', 'Agreed'],
  ['2.2', 'Heading', '', 'Outgoing', '', '', '', ''],
  [
    '2.2.1',
    'Requirement',
    'SW-203',
    'Resend',
    'The message handler shall resend a warning until somebody confirms it.',
    'Medium',
    'SYS-073',
    'Under discussion',
  ],
  ['2.2.2', 'Requirement', 'SW-204', 'Plain words', 'Warnings shall name place, hour and expected level.', 'Medium', 'SYS-077', 'Agreed'],
  ['3', 'Heading', '', 'Records', '', '', '', ''],
  ['3.1', 'Requirement', 'SW-301', 'Reasons', 'The recorder shall store with each movement the order or rule that caused it.', 'High', 'SYS-111', 'Agreed'],
  ['3.2', 'Requirement', 'SW-302', 'Clock', 'The recorder shall stamp records in UTC with an error of at most 0.1 s.', 'Medium', 'SYS-111', 'Agreed'],
];

/** Requirements of the control software as its team exports them: outline numbers, types, dropped rows among the others. */
export async function makeSoftware(issue: 1 | 2 = 1): Promise<Buffer> {
  const workbook = new ExcelJS.Workbook();
  workbook.created = new Date('2026-09-20T08:00:00Z');
  const sheet = workbook.addWorksheet('Software requirements');
  sheet.addRow([`Export of the control software team, issue ${issue}`]);
  sheet.addRow(['Outline', 'Type', 'ID', 'Title', 'Description', 'Priority', 'Derived from', 'State']);
  for (const row of issue === 1 ? rows : revise()) sheet.addRow(row);
  sheet.getRow(2).font = { bold: true };
  for (const [index, width] of [9, 13, 10, 24, 70, 10, 20, 18].entries()) sheet.getColumn(index + 1).width = width;
  return Buffer.from(await workbook.xlsx.writeBuffer());
}

function revise(): Row[] {
  const next = rows
    .filter(([, , id]) => id !== 'SW-302')
    .map((row): Row => (row[2] === 'SW-202' ? (row.map((cell) => cell.replace('10 s', '5 s')) as Row) : row));
  next.splice(4, 0, [
    '1.5',
    'Requirement',
    'SW-105',
    'Season change',
    'The regulator shall change the set level at noon on the day of the season.',
    'Low',
    'SYS-005',
    'Agreed',
  ]);
  return next;
}
