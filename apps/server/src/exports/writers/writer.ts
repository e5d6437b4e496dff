import type { ExchangeRecipe, SourcePicture } from '@coomb/core';
import type { ExportFormat } from '@coomb/contract';
import type { RecipeFile } from '@coomb/contract';
import type { Scene } from '../export-scene.js';

export interface ExportFile {
  name: string;
  bytes: Buffer;
}

/** A file that the items came from, as its partner has it. */
export interface PartnerFile {
  bytes: Buffer;
  recipe: ExchangeRecipe;
  /** Names that stored pictures have in it, by their stored id. */
  pictures: ReadonlyMap<string, string>;
}

/** What writers may ask for beyond the items. */
export interface Shelf {
  now: Date;
  findFiles: (ids: readonly string[]) => Promise<(SourcePicture & { id: string; name: string })[]>;
  /** The newest ReqIF file that the collection came from, with the recipe it was read by. */
  findPartnerFile: () => Promise<PartnerFile | undefined>;
}

/** Writes items in one format, and makes the recipe that reads such a file back. */
export interface Writer {
  id: ExportFormat;
  write: (scene: Scene, shelf: Shelf) => Promise<ExportFile>;
  buildRecipe: (scene: Scene, shelf: Shelf) => Promise<RecipeFile['body']>;
}
