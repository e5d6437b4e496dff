import type { ExportFormat } from '@coomb/contract';
import { alignSheetRecipe } from '@coomb/core';
import { compareBack, compareExchange, type ReadBack, readFileContent, readReqifFile } from '@coomb/formats';
import { applyRecipe } from '../gather/apply-recipe.js';
import type { Scene } from './export-scene.js';
import { writers } from './writers/index.js';
import type { ExportFile, Shelf } from './writers/writer.js';

export interface WriteTask {
  format: ExportFormat;
  scene: Scene;
  shelf: Shelf;
  /** Read the file back, and tell how it compares, instead of handing it over. */
  readsBack: boolean;
}

export type WriteAnswer = { file: ExportFile } | { name: string; size: number; back: ReadBack };

/** Writes a file away from the thread that answers people; reads it back by its recipe, as anybody would, when that is asked. */
export default async function writeInWorker({ format, scene, shelf, readsBack }: WriteTask): Promise<WriteAnswer> {
  const writer = writers.find((one) => one.id === format)!;
  const file = await writer.write(scene, shelf);
  if (!readsBack) return { file };
  const { content } = await readFileContent(file.name, file.bytes);
  if (content.type === 'results') throw new Error(`${file.name} was read as test results`);
  const { reads, recipe } = writer.buildRecipe(scene, shelf);
  const wish =
    reads === 'document'
      ? { documentRecipe: recipe }
      : reads === 'exchange'
        ? { exchangeRecipe: recipe }
        : { sheetRecipe: content.type === 'sheets' ? alignSheetRecipe(recipe, content.sheets).recipe : recipe };
  const back = compareBack(scene.scheme, scene.items, applyRecipe(scene.scheme, content, wish));
  if (shelf.partner && content.type === 'exchange') {
    const { exchange } = await readReqifFile(shelf.partner.bytes);
    back.differences.push(...compareExchange(shelf.partner.recipe, scene.items, exchange, content.exchange));
  }
  return { name: file.name, size: file.bytes.length, back };
}
