import type { Response } from 'express';
import { pipeline } from 'node:stream/promises';
import { restOf } from './rows.js';

/** Sends a file piece by piece, under its name. The first piece tells whether there is one, before anything is sent. */
export async function sendTable(response: Response, name: string, format: string, pieces: AsyncGenerator<Uint8Array | string>): Promise<void> {
  const all = restOf(await pieces.next(), pieces);
  response.status(200);
  response.setHeader('Content-Type', 'application/octet-stream');
  response.setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.${format}`)}`);
  await pipeline(all, response).catch((error) => response.destroy(error));
}
