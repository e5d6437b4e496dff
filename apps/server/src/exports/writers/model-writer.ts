import { type ModelDocument, type ModelRecipe, proposeModelRecipe, type Scheme } from '@coomb/core';
import { buildModelEdits, readFileContent, rewriteModel } from '@coomb/formats';
import type { PartnerFile, Writer } from './writer.js';

/** The model file that the items came from, as it came, with what changed here. A collection that came from none is refused before it gets here. */
export const modelWriter: Writer = {
  id: 'model',
  write: async ({ scheme, name, items }, { partner }) => {
    const bytes = Buffer.from(partner!.bytes);
    const { content } = await readFileContent(partner!.name, bytes);
    if (content.type !== 'model') throw new Error(`${partner!.name} is no model`);
    const edits = buildModelEdits(scheme, recipeOf(scheme, partner!, content.model), content.model, items);
    const ending = /\.\w+$/.exec(partner!.name)?.[0] ?? '.xmi';
    return { name: `${name}${ending}`, pieces: [await rewriteModel(content.model.notation, bytes, edits)] };
  },
  // What the file lacks in its recipe is aligned with the file when it is read.
  buildRecipe: (_, { partner }) => ({ reads: 'model', recipe: (partner!.recipe as ModelRecipe | null) ?? { name: 'As it came', elements: [], relations: [] } }),
};

const recipeOf = (scheme: Scheme, partner: PartnerFile, model: ModelDocument): ModelRecipe =>
  (partner.recipe as ModelRecipe | null) ?? proposeModelRecipe(scheme, model);
