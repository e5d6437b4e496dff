import { alignExchangeRecipe } from '../recipe/departures.js';
import { readExchange, type ExchangeRecipe } from '../recipe/exchange-recipe.js';
import { proposeExchangeRecipe } from '../recipe/propose-exchange-recipe.js';
import { cutExchange, type ExchangeDocument } from '../source/exchange.js';
import type { ContentType } from './content-type.js';

/** Objects of a file that a page is given to make a recipe by. */
const MOST_SHOWN = 5000;

/** Objects with attributes, outlines and relations, as tools exchange them. */
export const exchange: ContentType<'exchange', { exchange: ExchangeDocument }, ExchangeRecipe> = {
  type: 'exchange',
  reads: 'exchange',
  propose: (scheme, content, kind) => proposeExchangeRecipe(scheme, content.exchange, kind),
  read: (scheme, recipe, content) => readExchange(scheme, recipe, content.exchange),
  show: (_, content) => {
    const { pictures: __, embedded: ___, ...shown } = cutExchange(content.exchange, MOST_SHOWN);
    return { ...shown, total: content.exchange.objects.length };
  },
  align: (_, recipe, content) => alignExchangeRecipe(recipe, content.exchange).recipe,
  inherit: (_, recipe) => recipe,
  owns: (recipe) => 'types' in recipe,
  pictures: (content) => content.exchange.pictures,
  parts: (content) => content.exchange.outlines.map(({ name, nodes }) => ({ name, rows: nodes.length })),
};
