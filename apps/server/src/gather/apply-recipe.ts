import type { BodyOf, importFile } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import {
  applyDocumentRecipe,
  applyExchangeRecipe,
  applySheetRecipe,
  proposeDocumentRecipe,
  proposeExchangeRecipe,
  proposeSheetRecipe,
  type RecipeOutcome,
  type Scheme,
} from '@coomb/core';
import { applyModelRecipe, type FileContent } from '@coomb/formats';

export type RecipeWish = Pick<NonNullable<BodyOf<typeof importFile>>, 'documentRecipe' | 'sheetRecipe' | 'exchangeRecipe'>;

/** What becomes of a file by the recipe asked for, or the one that Coomb proposes. Refuses a recipe that cannot be followed with `input-invalid`. */
export function applyRecipe(scheme: Scheme, content: Exclude<FileContent, { type: 'results' }>, wish: RecipeWish): RecipeOutcome {
  try {
    switch (content.type) {
      case 'document':
        return applyDocumentRecipe(scheme, wish.documentRecipe ?? proposeDocumentRecipe(scheme, content.document), content.document);
      case 'sheets':
        return applySheetRecipe(scheme, wish.sheetRecipe ?? proposeSheetRecipe(scheme, content.sheets), content.sheets);
      case 'exchange':
        return applyExchangeRecipe(scheme, wish.exchangeRecipe ?? proposeExchangeRecipe(scheme, content.exchange), content.exchange);
      case 'model':
        return applyModelRecipe(scheme, content.model);
    }
  } catch (error) {
    if (error instanceof RangeError) throw new CoombError('input-invalid', `${error.message}.`, undefined, { cause: error });
    throw error;
  }
}
