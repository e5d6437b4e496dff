import { alignExchangeRecipe } from '../recipe/departures.js';
import { readExchange, type ExchangeRecipe } from '../recipe/exchange-recipe.js';
import { proposeExchangeRecipe } from '../recipe/propose-exchange-recipe.js';
import type { ExchangeDocument } from '../source/exchange.js';
import type { ContentType } from './content-type.js';

/** Objects with attributes, outlines and relations, as tools exchange them. */
export const exchange: ContentType<'exchange', { exchange: ExchangeDocument }, ExchangeRecipe> = {
  type: 'exchange',
  reads: 'exchange',
  propose: (scheme, content, kind) => proposeExchangeRecipe(scheme, content.exchange, kind),
  read: (scheme, recipe, content) => readExchange(scheme, recipe, content.exchange),
  align: (recipe, content) => alignExchangeRecipe(recipe, content.exchange).recipe,
  inherit: (recipe) => recipe,
  owns: (recipe) => 'relations' in recipe,
  pictures: (content) => content.exchange.pictures,
  parts: (content) => content.exchange.outlines.map(({ name, nodes }) => ({ name, rows: nodes.length })),
};
