import type { ExportFormat, RecipeFile } from '@coomb/contract';
import type { KeptDrawing } from '@coomb/formats';
import type { ExchangeRecipe, ModelRecipe, SourcePicture } from '@coomb/core';
import type { Scene } from '../export-scene.js';

export interface WrittenFile {
  name: string;
  pieces: Iterable<Uint8Array> | AsyncIterable<Uint8Array>;
}

/** A stored picture or another file. */
export type StoredFile = SourcePicture & { id: string; name: string };

/** A file that the items came from, as its partner has it. */
export interface PartnerFile {
  bytes: Uint8Array;
  name: string;
  /** What it was read by; nothing for models that came in before recipes for them were kept. */
  recipe: ExchangeRecipe | ModelRecipe | null;
  /** Names that stored pictures have in it, by their stored id. */
  pictures: ReadonlyMap<string, string>;
  /** Links that somebody removed, by the item that they led from. */
  removedLinks: ReadonlyMap<string, { linkKind: string; other: string }[]>;
  /** What links are in the models that they came with, by kind and items. */
  linkSorts: ReadonlyMap<string, string>;
  /** Drawings of the collection as they are kept here. */
  drawings: readonly KeptDrawing[];
}

/** What writers need beyond the items. */
export interface Shelf {
  now: Date;
  /** The stored pictures and other files that texts name. */
  files: readonly StoredFile[];
  /** The newest file of the format that the collection came from, with the recipe it was read by. */
  partner: PartnerFile | undefined;
}

/** Writes items in one format, and makes the recipe that reads such a file back. Runs in a worker: pure, from plain values. */
export interface Writer {
  id: ExportFormat;
  write: (scene: Scene, shelf: Shelf) => WrittenFile | Promise<WrittenFile>;
  buildRecipe: (scene: Scene, shelf: Shelf) => RecipeFile['body'];
}

/** At least so many bytes go out together. */
const PIECE = 64 * 1024;

/** Texts as bytes of pieces that are worth sending. */
export function* inPieces(texts: Iterable<string>): Generator<Uint8Array> {
  let waiting = '';
  for (const text of texts) {
    waiting += text;
    if (waiting.length < PIECE) continue;
    yield Buffer.from(waiting);
    waiting = '';
  }
  if (waiting) yield Buffer.from(waiting);
}
