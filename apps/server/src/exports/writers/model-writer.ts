import { type ModelDocument, type ModelRecipe, proposeModelRecipe, type Scheme } from '@coomb/core';
import { buildModelEdits, openNewModel, readFileContent, recipeForNewModel, rewriteModel, writeStandardModel } from '@coomb/formats';
import type { Scene } from '../export-scene.js';
import type { PartnerFile, Shelf, Writer } from './writer.js';

/** What the partner's file holds, and what changed here since. */
async function findEdits({ scheme, items }: Scene, { partner }: Shelf) {
  const bytes = Buffer.from(partner!.bytes);
  const { content } = await readFileContent(partner!.name, bytes);
  if (content.type !== 'model') throw new Error(`${partner!.name} is no model`);
  return {
    bytes,
    notation: content.model.notation,
    edits: buildModelEdits(scheme, recipeOf(scheme, partner!, content.model), content.model, items, partner!),
  };
}

// What the file lacks in its recipe is aligned with the file when it is read.
const buildRecipe: Writer['buildRecipe'] = (_, { partner }) => ({
  reads: 'model',
  recipe: (partner!.recipe as ModelRecipe | null) ?? { name: 'As it came', elements: [], relations: [] },
});

/** The model file that the items came from, as it came, with what changed here. A collection that came from none is refused before it gets here. */
export const modelWriter: Writer = {
  id: 'model',
  write: async (scene, shelf) => {
    const { bytes, notation, edits } = await findEdits(scene, shelf);
    const ending = /\.\w+$/.exec(shelf.partner!.name)?.[0] ?? '.xmi';
    return { name: `${scene.name}${ending}`, pieces: [await rewriteModel(notation, bytes, edits)] };
  },
  buildRecipe,
};

/** A model for another tool: in the standard's own way, whatever dialect it came in; a new one of what came from no UML model. */
export const standardModelWriter: Writer = {
  id: 'xmi',
  write: async (scene, shelf) => {
    const { bytes, edits } = shelf.partner ? await findEdits(scene, shelf) : beginModel(scene);
    return { name: `${scene.name}.xmi`, pieces: [await writeStandardModel(bytes, edits)] };
  },
  buildRecipe: (scene, shelf) => (shelf.partner ? buildRecipe(scene, shelf) : { reads: 'model', recipe: recipeForNewModel(scene.scheme) }),
};

function beginModel({ scheme, name, items }: Scene) {
  const { bytes, model, recipe } = openNewModel(scheme, name);
  return { bytes, edits: buildModelEdits(scheme, recipe, model, items) };
}

const recipeOf = (scheme: Scheme, partner: PartnerFile, model: ModelDocument): ModelRecipe =>
  (partner.recipe as ModelRecipe | null) ?? proposeModelRecipe(scheme, model);
