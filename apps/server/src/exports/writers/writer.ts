import type { ExportFormat, RecipeFile } from '@coomb/contract';
import type { ExchangeRecipe, SourcePicture } from '@coomb/core';
import type { Scene } from '../export-scene.js';

export interface ExportFile {
  name: string;
  bytes: Uint8Array;
}

/** A file that the items came from, as its partner has it. */
export interface PartnerFile {
  bytes: Uint8Array;
  recipe: ExchangeRecipe;
  /** Names that stored pictures have in it, by their stored id. */
  pictures: ReadonlyMap<string, string>;
}

/** What writers need beyond the items. */
export interface Shelf {
  now: Date;
  /** The stored pictures and other files that texts name. */
  files: readonly (SourcePicture & { id: string; name: string })[];
  /** The newest ReqIF file that the collection came from, with the recipe it was read by. */
  partner: PartnerFile | undefined;
}

/** Writes items in one format, and makes the recipe that reads such a file back. Runs in a worker: pure, from plain values. */
export interface Writer {
  id: ExportFormat;
  write: (scene: Scene, shelf: Shelf) => Promise<ExportFile>;
  buildRecipe: (scene: Scene, shelf: Shelf) => RecipeFile['body'];
}
