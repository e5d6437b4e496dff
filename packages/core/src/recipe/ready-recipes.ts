import { getUsualKind } from '../scheme/roles.js';
import type { Scheme } from '../scheme/scheme.js';
import { type DocumentRecipe, usualIdentifier } from './document-recipe.js';

/** Recipes that come with Coomb: starting points to be copied. Tables and labels are proposed from the document they are put on. */
export interface ReadyRecipe {
  id: string;
  name: string;
  explains: string;
  reads: 'document';
  recipe: DocumentRecipe;
}

const sections = new Array<'section'>(9).fill('section');

/** The ready recipes for a project's own kinds. */
export function buildReadyRecipes(scheme: Scheme): ReadyRecipe[] {
  const kind = getUsualKind(scheme).id;
  return ready.map((one) => ({ ...one, recipe: { ...one.recipe, kind } }));
}

type Ready = Omit<ReadyRecipe, 'recipe'> & { recipe: Omit<DocumentRecipe, 'kind'> };
const ready: readonly Ready[] = [
  {
    id: 'ready-numbered',
    name: 'Numbered statements under headings',
    explains: 'Headings are sections; a paragraph that starts with an identifier such as SYS-042 is an item.',
    reads: 'document',
    recipe: {
      name: 'Numbered statements under headings',
      headings: sections,
      identifier: usualIdentifier,
      bindingWords: [],
      labels: [],
      tables: [],
    },
  },
  {
    id: 'ready-binding',
    name: 'Binding sentences of a standard',
    explains: 'Headings are sections; every paragraph with shall, must or may not is an item of its own.',
    reads: 'document',
    recipe: {
      name: 'Binding sentences of a standard',
      headings: sections,
      identifier: '',
      bindingWords: ['shall', 'must', 'shall not', 'must not', 'may not'],
      labels: [],
      tables: [],
    },
  },
  {
    id: 'ready-headed',
    name: 'One heading a requirement',
    explains: 'The lowest headings are items, those above are sections; the text below a heading belongs to it.',
    reads: 'document',
    recipe: {
      name: 'One heading a requirement',
      headings: ['section', 'section', 'item', 'item', 'item', 'item', 'item', 'item', 'item'],
      identifier: usualIdentifier,
      bindingWords: [],
      labels: [],
      tables: [],
    },
  },
];
