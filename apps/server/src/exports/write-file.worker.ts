import type { MessagePort } from 'node:worker_threads';
import type { ExportFormat, RecipeFile } from '@coomb/contract';
import { contentTypeOf, type ExchangeRecipe } from '@coomb/core';
import { compareBack, compareExchange, type ReadBack, type ReqifItem, readFileContent, readReqifFile } from '@coomb/formats';
import { applyRecipe, wishFor } from '../gather/apply-recipe.js';
import type { Scene, SceneHead } from './export-scene.js';
import { readSlice, type Slice } from './read-scene.js';
import { findStored } from './stored-files.js';
import { writers } from './writers/index.js';
import type { PartnerFile, Shelf, StoredFile, Writer, WrittenFile } from './writers/writer.js';

export interface WriteTask {
  format: ExportFormat;
  head: SceneHead;
  now: Date;
  partner: PartnerFile | undefined;
  /** The file itself, piece by piece through the port; how it compares when it is read back; or the recipe that reads it. */
  wants: 'file' | 'comparison' | 'recipe';
}

/** Through the port of a task: the worker says when it begins, is given the items and then the files that they name, and gives the file. */
export type ToWorker = Slice | { files: StoredFile[] } | { failed: string } | 'no more items';
export type FromWorker = 'begin' | { stored: string[] } | { name: string } | { piece: Uint8Array } | 'no more pieces';

export type WriteAnswer =
  | { wants: 'file' }
  | { wants: 'comparison'; name: string; size: number; back: ReadBack }
  | { wants: 'recipe'; body: RecipeFile['body'] };

/** Writes a file away from the thread that answers people; reads it back by its recipe, as anybody would, when that is asked. */
export default async function writeInWorker({ port, ...task }: WriteTask & { port: MessagePort }): Promise<WriteAnswer> {
  const hear = listen(port);
  const say = (message: FromWorker) => port.postMessage(message);
  try {
    const { format, partner, now, wants } = task;
    say('begin');
    const scene: Scene = { ...task.head, items: await hearItems(hear, partner) };
    say({ stored: findStored(scene.items) });
    const { files } = (await hear()) as { files: StoredFile[] };
    const writer = writers.find((one) => one.id === format)!;
    const shelf: Shelf = { now, partner, files };
    if (wants === 'recipe') return { wants, body: writer.buildRecipe(scene, shelf) };
    const file = await writer.write(scene, shelf);
    if (wants === 'comparison') return { wants, ...(await readBack(writer, scene, shelf, file)) };
    say({ name: file.name });
    for await (const bytes of file.pieces) {
      // A copy of its own, which is handed over: a piece may be a part of a larger block.
      const piece = new Uint8Array(bytes);
      port.postMessage({ piece } satisfies FromWorker, [piece.buffer]);
    }
    return { wants };
  } finally {
    say('no more pieces');
    port.close();
  }
}

async function hearItems(hear: () => Promise<ToWorker>, partner: PartnerFile | undefined): Promise<ReqifItem[]> {
  const items: ReqifItem[] = [];
  for (let heard = await hear(); heard !== 'no more items'; heard = await hear())
    if ('failed' in heard) throw new Error(heard.failed);
    else items.push(...readSlice(heard as Slice, partner?.removedLinks));
  return items;
}

async function readBack(writer: Writer, scene: Scene, shelf: Shelf, file: WrittenFile): Promise<{ name: string; size: number; back: ReadBack }> {
  const pieces: Uint8Array[] = [];
  for await (const piece of file.pieces) pieces.push(piece);
  const bytes = Buffer.concat(pieces);
  const { content } = await readFileContent(file.name, bytes);
  if (content.type === 'results') throw new Error(`${file.name} was read as test results`);
  const { reads, recipe } = writer.buildRecipe(scene, shelf);
  const type = contentTypeOf(content.type);
  if (type.reads !== reads) throw new Error(`${file.name} was read as ${content.type}`);
  const wish = wishFor(type, type.align(scene.scheme, recipe, content));
  const back = compareBack(scene.scheme, scene.items, applyRecipe(scene.scheme, content, wish));
  if (shelf.partner?.recipe && content.type === 'exchange') {
    const { exchange } = await readReqifFile(shelf.partner.bytes);
    back.differences.push(...compareExchange(shelf.partner.recipe as ExchangeRecipe, scene.items, exchange, content.exchange));
  }
  return { name: file.name, size: bytes.length, back };
}

/** What comes through a port, one after another. */
function listen(port: MessagePort): () => Promise<ToWorker> {
  const heard: ToWorker[] = [];
  let wake = () => {};
  port.on('message', (message: ToWorker) => {
    heard.push(message);
    wake();
  });
  return async () => {
    while (heard.length === 0)
      await new Promise<void>((resolve) => {
        wake = resolve;
      });
    return heard.shift()!;
  };
}
