import { readFileSync } from 'node:fs';
import * as core from '@coomb/core';
import { readFileContent, ReadError } from '@coomb/formats';
import { findPeak, forgetPeak } from './peak-memory.mjs';

/** Reads one file as the server does and makes items of it by the proposed recipe; tells how that ended, how long it took and the most memory it took. */
const [path] = process.argv.slice(2);
const { defaultScheme: scheme } = core;
await readFileContent('warm.csv', Buffer.from('ID,Title\nA,B'));
globalThis.gc?.();
const before = process.memoryUsage().rss;
const isNew = forgetPeak();
const start = performance.now();
const ended = await read().catch((error) => (error instanceof ReadError ? `refused: ${error.code}` : `BROKE: ${error.message.slice(0, 80)}`));
const took = Math.round(performance.now() - start);
console.log(JSON.stringify({ ended, took, megabytes: Math.max(0, Math.round((findPeak(isNew) - before) / 1024 / 1024)) }));
process.exit(0);

async function read() {
  const { content } = await readFileContent(path, readFileSync(path));
  const outcome =
    content.type === 'document'
      ? core.applyDocumentRecipe(scheme, core.proposeDocumentRecipe(scheme, content.document), content.document)
      : content.type === 'sheets'
        ? core.applySheetRecipe(scheme, core.proposeSheetRecipe(scheme, content.sheets), content.sheets)
        : content.type === 'exchange'
          ? core.applyExchangeRecipe(scheme, core.proposeExchangeRecipe(scheme, content.exchange), content.exchange)
          : undefined;
  return outcome ? `read: ${outcome.drafts.length} items` : `read: ${content.type}`;
}
