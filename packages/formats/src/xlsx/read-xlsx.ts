import type { Issue, SourceSheet } from '@coomb/core';
import { findMainPart, findRelatedPart, readRelations, type Relation } from '../archive/office-parts.js';
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
    const main = await findMainPart(archive, 'xl/workbook.xml');
    if (!main) throw new ReadError('not-a-workbook', 'The file is an archive, but holds no workbook. Choose an .xlsx file.');
    const relations = await readRelations(archive, main);
    const { parts, from1904, issues } = await readSheetParts(archive, main, relations);
    const [stringsPart, stylesPart] = ['sharedStrings', 'styles'].map((type) => findRelatedPart(archive, main, relations, type));
    const strings = stringsPart ? await readSharedStrings(await archive.stream(stringsPart)) : { texts: [], struck: new Set<number>() };
    const styles = stylesPart ? await readCellStyles(await archive.stream(stylesPart), from1904) : [];
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
async function readSheetParts(
  archive: Archive,
  main: string,
  relations: readonly Relation[],
): Promise<{ parts: SheetPart[]; from1904: boolean; issues: Issue[] }> {
  let from1904 = false;
  const issues: Issue[] = [];
  const targets = new Map(relations.map((one) => [one.id, one.target]));
  const parts: SheetPart[] = [];
  await walkXml(await archive.stream(main), {
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
      // The prefix of relationships is the writer's own.
      const [, id = ''] = Object.entries(attributes).find(([one]) => localName(one) === 'id' && one.includes(':')) ?? [];
      parts.push({ name: sheet, part: targets.get(id) ?? '' });
    },
    close() {},
  });
  return { parts, from1904, issues };
}
