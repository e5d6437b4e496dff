import type { Issue, SourceSheet } from '@coomb/core';
import { openArchive, type Archive } from '../archive/zip.js';
import { ReadError } from '../read-error.js';
import { localName, walkXml } from '../xml/walk-xml.js';
import { readCellStyles } from './cell-styles.js';
import { readSheetExtras } from './sheet-extras.js';
import { readSharedStrings } from './shared-strings.js';
import { SheetReader } from './sheet-reader.js';

/** Reads the visible texts of a workbook (ECMA-376), sheet by sheet. Formulas give their last value; what is hidden is read and told. Throws ReadError. */
export async function readXlsx(bytes: Uint8Array): Promise<{ sheets: SourceSheet[]; issues: Issue[] }> {
  const archive = await openArchive(bytes);
  try {
    if (!archive.has('xl/workbook.xml')) throw new ReadError('not-a-workbook', 'The file is an archive, but holds no workbook. Choose an .xlsx file.');
    const { parts, from1904, issues } = await readSheetParts(archive);
    const strings = archive.has('xl/sharedStrings.xml')
      ? await readSharedStrings(await archive.stream('xl/sharedStrings.xml'))
      : { texts: [], struck: new Set<number>() };
    const styles = archive.has('xl/styles.xml') ? await readCellStyles(await archive.stream('xl/styles.xml'), from1904) : [];
    const sheets: SourceSheet[] = [];
    for (const { name, part } of parts) {
      if (!archive.has(part)) continue;
      const reader = new SheetReader(name, strings, styles);
      await walkXml(await archive.stream(part), reader);
      sheets.push(reader.read());
      issues.push(...reader.issues(), ...(await readSheetExtras(archive, part, name)));
    }
    return { sheets, issues };
  } finally {
    archive.close();
  }
}

interface SheetPart {
  name: string;
  part: string;
}

/** Sheets in order, and whether days are counted from 1904. */
async function readSheetParts(archive: Archive): Promise<{ parts: SheetPart[]; from1904: boolean; issues: Issue[] }> {
  let from1904 = false;
  const issues: Issue[] = [];
  const targets = new Map<string, string>();
  await walkXml(await archive.stream('xl/_rels/workbook.xml.rels'), {
    open: (name, attributes) => void (localName(name) === 'Relationship' && targets.set(attributes.Id ?? '', attributes.Target ?? '')),
    close() {},
  });
  const parts: SheetPart[] = [];
  await walkXml(await archive.stream('xl/workbook.xml'), {
    open(name, attributes) {
      if (localName(name) === 'workbookPr' && ['1', 'true'].includes(attributes.date1904 ?? '')) from1904 = true;
      if (localName(name) !== 'sheet') return;
      const sheet = attributes.name ?? '';
      if (attributes.state === 'veryHidden' || attributes.state === 'hidden')
        issues.push({
          severity: 'note',
          code: 'sheet-hidden',
          at: sheet,
          message: `The sheet "${sheet}" is hidden in the workbook; it can be chosen like any other`,
        });
      const target = targets.get(attributes['r:id'] ?? '') ?? '';
      parts.push({ name: sheet, part: target.startsWith('/') ? target.slice(1) : `xl/${target}` });
    },
    close() {},
  });
  return { parts, from1904, issues };
}
