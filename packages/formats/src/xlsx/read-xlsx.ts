import { columnName, type Issue, type SheetMerge, type SourceSheet } from '@coomb/core';
import { openArchive, type Archive } from '../archive/zip.js';
import { ReadError } from '../read-error.js';
import { localName, walkXml } from '../xml/walk-xml.js';

const MOST_CELLS = 4_000_000;
const MOST_MERGES = 200_000;
/** Days between the two calendars that workbooks count by, 1900 and 1904. */
const DAYS_1904 = 1462;

/** Reads the visible texts of a workbook (ECMA-376), sheet by sheet. Formulas give their last value. Throws ReadError. */
export async function readXlsx(bytes: Uint8Array): Promise<{ sheets: SourceSheet[]; issues: Issue[] }> {
  const archive = await openArchive(bytes);
  try {
    if (!archive.has('xl/workbook.xml')) throw new ReadError('not-a-workbook', 'The file is an archive, but holds no workbook. Choose an .xlsx file.');
    const { parts, epoch } = await readSheetParts(archive);
    const strings = archive.has('xl/sharedStrings.xml') ? await readSharedStrings(archive) : [];
    const isDate = archive.has('xl/styles.xml') ? await readDateStyles(archive) : () => false;
    const issues: Issue[] = [];
    const sheets: SourceSheet[] = [];
    for (const { name, part } of parts) if (archive.has(part)) sheets.push({ name, ...(await readSheet(archive, part, name, strings, isDate, epoch, issues)) });
    return { sheets, issues };
  } finally {
    archive.close();
  }
}

/** Sheets in order, and the day that dates are counted from. */
async function readSheetParts(archive: Archive): Promise<{ parts: { name: string; part: string }[]; epoch: number }> {
  let epoch = 0;
  const targets = new Map<string, string>();
  await walkXml(await archive.stream('xl/_rels/workbook.xml.rels'), {
    open: (name, attributes) => void (localName(name) === 'Relationship' && targets.set(attributes.Id ?? '', attributes.Target ?? '')),
    close() {},
  });
  const parts: { name: string; part: string }[] = [];
  await walkXml(await archive.stream('xl/workbook.xml'), {
    open(name, attributes) {
      if (localName(name) === 'workbookPr' && ['1', 'true'].includes(attributes.date1904 ?? '')) epoch = DAYS_1904;
      if (localName(name) !== 'sheet' || attributes.state === 'veryHidden') return;
      const target = targets.get(attributes['r:id'] ?? '') ?? '';
      parts.push({ name: attributes.name ?? '', part: target.startsWith('/') ? target.slice(1) : `xl/${target}` });
    },
    close() {},
  });
  return { parts, epoch };
}

async function readSharedStrings(archive: Archive): Promise<string[]> {
  const strings: string[] = [];
  let text = '';
  let reading = false;
  let phonetic = 0;
  await walkXml(await archive.stream('xl/sharedStrings.xml'), {
    open(name) {
      const local = localName(name);
      if (local === 'si') text = '';
      else if (local === 'rPh') phonetic++;
      else if (local === 't') reading = phonetic === 0;
    },
    close(name) {
      const local = localName(name);
      if (local === 'si') strings.push(text);
      else if (local === 'rPh') phonetic--;
      else if (local === 't') reading = false;
    },
    text(part) {
      if (reading) text += part;
    },
  });
  return strings;
}

/** Which cell styles show numbers as dates: built-in formats 14 to 22 and 45 to 47, and own ones with day, month or year. */
async function readDateStyles(archive: Archive): Promise<(style: number) => boolean> {
  const own = new Map<number, boolean>();
  const styles: boolean[] = [];
  let inCells = false;
  await walkXml(await archive.stream('xl/styles.xml'), {
    open(name, attributes) {
      const local = localName(name);
      if (local === 'numFmt') own.set(Number(attributes.numFmtId), /[dmy]/i.test((attributes.formatCode ?? '').replace(/"[^"]*"|\[[^\]]*\]/g, '')));
      else if (local === 'cellXfs') inCells = true;
      else if (local === 'xf' && inCells) {
        const format = Number(attributes.numFmtId);
        styles.push(own.get(format) ?? ((format >= 14 && format <= 22) || (format >= 45 && format <= 47)));
      }
    },
    close(name) {
      if (localName(name) === 'cellXfs') inCells = false;
    },
  });
  return (style) => styles[style] === true;
}

async function readSheet(
  archive: Archive,
  part: string,
  sheet: string,
  strings: string[],
  isDate: (style: number) => boolean,
  epoch: number,
  issues: Issue[],
): Promise<Pick<SourceSheet, 'rows' | 'merges'>> {
  const rows: string[][] = [];
  const merges: SheetMerge[] = [];
  let row: string[] = [];
  let column = 0;
  let type = '';
  let style = 0;
  let value = '';
  let reading = false;
  let cells = 0;
  let merged = 0;
  await walkXml(await archive.stream(part), {
    open(name, attributes) {
      const local = localName(name);
      if (local === 'row') {
        const at = Number(attributes.r ?? rows.length + 1) - 1;
        while (rows.length < at && rows.length < 1_100_000) rows.push([]);
        row = [];
        rows.push(row);
        column = 0;
      } else if (local === 'c') {
        if (++cells > MOST_CELLS) throw new ReadError('sheet-too-large', `The sheet "${sheet}" holds more than ${MOST_CELLS} cells and was refused.`);
        column = attributes.r ? columnOf(attributes.r) : column;
        type = attributes.t ?? 'n';
        style = Number(attributes.s ?? 0);
        value = '';
      } else if (local === 'v' || local === 't') reading = true;
      else if (local === 'mergeCell') {
        const merge = readMerge(attributes.ref ?? '');
        if (merge && ++merged <= MOST_MERGES) merges.push(merge);
      }
    },
    close(name) {
      const local = localName(name);
      if (local === 'v' || local === 't') reading = false;
      if (local !== 'c') return;
      while (row.length < column) row.push('');
      if (type === 'e')
        issues.push({
          severity: 'warning',
          code: 'cell-error',
          at: `${sheet}!${columnName(column)}${rows.length}`,
          message: `The cell shows the error ${value}; it was read as empty`,
        });
      row[column++] =
        type === 's'
          ? (strings[Number(value)] ?? '')
          : type === 'b'
            ? value === '1'
              ? 'yes'
              : 'no'
            : type === 'e'
              ? ''
              : type === 'n' && value && isDate(style)
                ? asDate(Number(value) + epoch)
                : value;
    },
    text(part) {
      if (reading) value += part;
    },
  });
  if (merged > MOST_MERGES)
    issues.push({
      severity: 'warning',
      code: 'merges-cut',
      at: sheet,
      message: `Only the first ${MOST_MERGES} of ${merged} merged cells count as merged; the others are read as they stand`,
    });
  return { rows, ...(merges.length > 0 && { merges }) };
}

/** `B2:D2` as rows and columns from 0. */
function readMerge(reference: string): SheetMerge | undefined {
  const [from, to] = reference.split(':');
  if (!from || !to) return undefined;
  const row = (cell: string) => Number(/\d+$/.exec(cell)?.[0] ?? 0) - 1;
  const merge = { top: row(from), left: columnOf(from), bottom: row(to), right: columnOf(to) };
  return merge.top < 0 || merge.left < 0 || merge.bottom < merge.top || merge.right < merge.left ? undefined : merge;
}

function columnOf(reference: string): number {
  let column = 0;
  for (const letter of reference) {
    const code = letter.charCodeAt(0) - 64;
    if (code < 1 || code > 26) break;
    column = column * 26 + code;
  }
  return Math.min(column - 1, 16_383);
}

/** Serial day number of the 1900 system as an ISO date. */
function asDate(serial: number): string {
  const date = new Date(Math.round((serial - 25_569) * 86_400_000));
  return Number.isNaN(date.getTime()) ? String(serial) : date.toISOString().slice(0, 10);
}
