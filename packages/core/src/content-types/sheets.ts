import { alignSheetRecipe } from '../recipe/departures.js';
import { proposeSheetRecipe } from '../recipe/propose-sheet-recipe.js';
import { readSheets, type SheetRecipe } from '../recipe/sheet-recipe.js';
import type { SourceSheet } from '../source/document.js';
import type { ContentType } from './content-type.js';

/** Rows in columns, of a workbook or of separated values. */
export const sheets: ContentType<'sheets', { sheets: SourceSheet[] }, SheetRecipe> = {
  type: 'sheets',
  reads: 'sheet',
  propose: (scheme, content, kind) => proposeSheetRecipe(scheme, content.sheets, kind),
  read: (scheme, recipe, content) => readSheets(scheme, recipe, content.sheets),
  show: (_, content) => ({ sheets: content.sheets }),
  align: (_, recipe, content) => alignSheetRecipe(recipe, content.sheets).recipe,
  complete: (recipe, content) => ({ ...recipe, dialect: content.sheets[0]?.dialect }),
  inherit: (_, recipe, { sheets: all }) => (all.some((one) => one.name === recipe.sheet) || all.length !== 1 ? recipe : { ...recipe, sheet: all[0]!.name }),
  owns: (recipe) => 'headerRow' in recipe,
  parts: (content) => content.sheets.map(({ name, rows }) => ({ name, rows: rows.length })),
};
