import { createInflate } from 'node:zlib';
import { ReadError } from '../read-error.js';

/** Streams up to this size may be packed as tightly as they like. */
const SMALL = 16 * 1024 * 1024;
/** Drawn pages and fonts unpack to ten times their size and less. */
const MOST_SWELLING = 120;
const MOST_PAGES = 3000;
/** A dictionary that stands before a stream, at most. */
const DICTIONARY = 2000;

const swells = (what: string) => new ReadError('pdf-swells', `The PDF holds ${what}, as no document does; it was refused.`);

/**
 * Looks through the packed streams of a PDF before it is read: what a reader would have to unpack is measured, not trusted. Throws ReadError
 * for streams that swell without measure, and for more pages than are read.
 */
export async function checkStreams(bytes: Uint8Array): Promise<void> {
  const file = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
  const pages = countPages(file);
  if (pages > MOST_PAGES)
    throw new ReadError('pdf-long', `The PDF has ${pages.toLocaleString('en-GB')} pages; Coomb reads up to ${MOST_PAGES.toLocaleString('en-GB')}.`);
  for (let at = file.indexOf('stream'); at >= 0; at = file.indexOf('stream', at + 6)) {
    if (file.toString('latin1', at - 3, at) === 'end') continue;
    const dictionary = file.toString('latin1', Math.max(0, at - DICTIONARY), at);
    const own = dictionary.slice(dictionary.lastIndexOf(' obj'));
    const filters = own.match(/\/(?:FlateDecode|Fl|LZWDecode|LZW|RunLengthDecode|RL)\b/g) ?? [];
    if (filters.length > 1) throw swells('a stream that is packed more than once');
    // Pictures are not unpacked when texts are read.
    if (filters.length === 0 || /\/Subtype\s*\/Image\b/.test(own)) continue;
    const end = file.indexOf('endstream', at);
    const start = at + 6 + (file[at + 6] === 13 ? 2 : 1);
    const packed = file.subarray(start, end < 0 ? file.length : end);
    if (!filters[0]!.startsWith('/Fl')) {
      // Neither can be measured without unpacking; only old and short streams are packed so.
      if (packed.length > SMALL / MOST_SWELLING) throw swells('a long stream that is packed as nobody does any more');
      continue;
    }
    if (packed.length * 1032 > SMALL) await measure(packed);
  }
}

/** Page objects that can be seen; those in packed object streams are counted by the reader. */
function countPages(file: Buffer): number {
  let pages = 0;
  for (let at = file.indexOf('/Type'); at >= 0; at = file.indexOf('/Type', at + 5))
    if (/^\/Type\s*\/Page\b/.test(file.toString('latin1', at, at + 20))) pages++;
  return pages;
}

/** Unpacks and throws away, until more came out than may. A stream that is damaged is the reader's to tell. */
async function measure(packed: Buffer): Promise<void> {
  const most = Math.max(SMALL, packed.length * MOST_SWELLING);
  const inflate = createInflate({ chunkSize: 1 << 18 });
  inflate.end(packed);
  let size = 0;
  try {
    for await (const chunk of inflate) {
      size += (chunk as Buffer).length;
      if (size > most) break;
    }
  } catch {
    return;
  }
  if (size > most) throw swells(`a stream that swells to more than ${MOST_SWELLING} times its size`);
}
