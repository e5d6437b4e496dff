import type { BodyOf, importFile } from '@coomb/contract';
import { CoombError } from '@coomb/contract/errors';
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
import { applyModelRecipe, type FileContent } from '@coomb/formats/reading';

export type RecipeWish = Pick<NonNullable<BodyOf<typeof importFile>>, 'documentRecipe' | 'sheetRecipe' | 'exchangeRecipe'>;

type Content = Exclude<FileContent, { type: 'results' }>;

/** The recipe asked for, else the one that Coomb proposes for the file: what is followed is also what is kept with the source. */
export function fillRecipe(scheme: Scheme, content: Content, wish: RecipeWish): RecipeWish {
  switch (content.type) {
    case 'document':
      return { documentRecipe: wish.documentRecipe ?? proposeDocumentRecipe(scheme, content.document) };
    case 'sheets':
      // How the file was read goes with the recipe, so that its source reads the same way again.
      return { sheetRecipe: { ...(wish.sheetRecipe ?? proposeSheetRecipe(scheme, content.sheets)), dialect: content.sheets[0]?.dialect } };
    case 'exchange':
      return { exchangeRecipe: wish.exchangeRecipe ?? proposeExchangeRecipe(scheme, content.exchange) };
    case 'model':
      return {};
  }
}

/** What becomes of a file by the recipe asked for, or the one that Coomb proposes. Refuses a recipe that cannot be followed with `input-invalid`. */
export function applyRecipe(scheme: Scheme, content: Content, wish: RecipeWish): RecipeOutcome {
  const { documentRecipe, sheetRecipe, exchangeRecipe } = fillRecipe(scheme, content, wish);
  try {
    switch (content.type) {
      case 'document':
        return applyDocumentRecipe(scheme, documentRecipe!, content.document);
      case 'sheets':
        return applySheetRecipe(scheme, sheetRecipe!, content.sheets);
      case 'exchange':
        return applyExchangeRecipe(scheme, exchangeRecipe!, content.exchange);
      case 'model':
        return applyModelRecipe(scheme, content.model);
    }
  } catch (error) {
    if (error instanceof RangeError) throw new CoombError('input-invalid', `${error.message}.`, undefined, { cause: error });
    throw error;
  }
}
