import { buildColumns, buildSheetRecipe, cellText, writeCsv } from '@coomb/formats';
import { sheetName, writeWorkbook } from '../../tables/write-workbook.js';
import type { Scene } from '../export-scene.js';
import { inPieces, type Writer } from './writer.js';

const buildRecipe: Writer['buildRecipe'] = ({ scheme, name, kind, items }) => ({
  reads: 'sheet',
  recipe: buildSheetRecipe(buildColumns(scheme, items, cellText), sheetName(name), kind),
});

export const csvWriter: Writer = {
  id: 'csv',
  write: (scene) => ({ name: `${scene.name}.csv`, pieces: inPieces(writeCsv(rowsOf(scene))) }),
  buildRecipe,
};

export const xlsxWriter: Writer = {
  id: 'xlsx',
  write: (scene) => ({ name: `${scene.name}.xlsx`, pieces: writeWorkbook(scene.name, rowsOf(scene)) }),
  buildRecipe,
};

function* rowsOf({ scheme, items }: Scene): Generator<string[]> {
  const columns = buildColumns(scheme, items, cellText);
  yield columns.map((column) => column.name);
  for (const item of items) yield columns.map((column) => column.valueOf(item));
}
