import { pipeline } from 'node:stream';
import { createInflateRaw } from 'node:zlib';
import { fromBuffer, type Entry, type ZipFile } from 'yauzl';
import { ReadError } from '../read-error.js';

/** What an archive may cost us. Sizes in bytes. */
export interface ZipLimits {
  entries: number;
  unpacked: number;
}

export const usualZipLimits: ZipLimits = { entries: 20_000, unpacked: 400 * 1024 * 1024 };

export interface Archive {
  names: string[];
  has(name: string): boolean;
  /** Bytes of an entry. Throws ReadError when it is missing or damaged. */
  read(name: string): Promise<Buffer>;
  /** Bytes of an entry, chunk by chunk. */
  stream(name: string): Promise<AsyncIterable<Buffer>>;
  close(): void;
}

/** Whether bytes begin as a zip archive does. */
export function isArchive(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b;
}

/** Parts up to this size may be packed as tightly as they like. */
const SMALL = 16 * 1024 * 1024;
/** Office documents unpack to ten to thirty times their size, the dullest of sheets to sixty; a part that swells more is made to harm. */
const MOST_SWELLING = 120;

/** A part whose name leads out of the archive would be written anywhere by whoever unpacks it. */
const climbing = (cause: Error) =>
  new ReadError(
    'archive-climbs',
    `The archive holds a part whose name leads out of it (${cause.message.replace(/^.*?: /, '').slice(0, 120)}); for safety it was refused. Have it packed anew.`,
    {
      cause,
    },
  );

const damaged = (cause: unknown) =>
  new ReadError('archive-damaged', 'The file is damaged or incomplete: its archive cannot be read to the end. Save or download it again.', { cause });

/**
 * Opens a zip archive held in memory. Declared sizes are checked before anything is unpacked, and again against what comes out.
 * Throws ReadError: empty, not an archive, encrypted, damaged, too large.
 */
export async function openArchive(bytes: Uint8Array, limits: ZipLimits = usualZipLimits): Promise<Archive> {
  if (bytes.length === 0) throw new ReadError('file-empty', 'The file is empty.');
  if (bytes[0] === 0xd0 && bytes[1] === 0xcf)
    throw new ReadError(
      'file-encrypted',
      'The file is protected by a password or saved in an old binary format. Save it without password as .docx or .xlsx and try again.',
    );
  if (!isArchive(bytes)) throw new ReadError('not-an-archive', 'The file is not what its name says: it does not hold an office document.');
  const zip = await new Promise<ZipFile>((resolve, reject) =>
    fromBuffer(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length), { lazyEntries: true, validateEntrySizes: true, autoClose: false }, (error, file) =>
      error ? reject(damaged(error)) : resolve(file),
    ),
  );
  const entries = await listEntries(zip, limits);
  const stream = (name: string) => openEntry(zip, entries.get(name), name);
  return {
    names: [...entries.keys()],
    has: (name) => entries.has(name),
    stream,
    read: async (name) => {
      const chunks: Buffer[] = [];
      try {
        for await (const chunk of await stream(name)) chunks.push(chunk);
      } catch (error) {
        throw error instanceof ReadError ? error : damaged(error);
      }
      return Buffer.concat(chunks);
    },
    close: () => zip.close(),
  };
}

function listEntries(zip: ZipFile, limits: ZipLimits): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>();
  let unpacked = 0;
  return new Promise((resolve, reject) => {
    zip.on('error', (error) =>
      reject(/invalid (?:relative path|characters in fileName)|absolute path/i.test(error.message) ? climbing(error) : damaged(error)),
    );
    zip.on('end', () => resolve(entries));
    zip.on('entry', (entry: Entry) => {
      unpacked += entry.uncompressedSize;
      if (unpacked > limits.unpacked)
        return reject(
          new ReadError('archive-too-large', `The file would unpack to more than ${Math.round(limits.unpacked / 1024 / 1024)} MB and was refused.`),
        );
      if (entry.uncompressedSize > SMALL && entry.uncompressedSize > entry.compressedSize * MOST_SWELLING)
        return reject(
          new ReadError(
            'archive-swells',
            `The part "${entry.fileName}" of the file would swell to ${Math.round(entry.uncompressedSize / entry.compressedSize)} times its size, as no document does; the file was refused.`,
          ),
        );
      if (entries.size >= limits.entries)
        return reject(new ReadError('archive-too-large', `The file holds more than ${limits.entries} parts and was refused.`));
      if (entry.generalPurposeBitFlag & 1) return reject(new ReadError('file-encrypted', 'The file is encrypted. Save it without password and try again.'));
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.readEntry();
  });
}

const DEFLATED = 8;
/** Bytes that come out at a time. */
const PIECE = 1 << 16;

function openEntry(zip: ZipFile, entry: Entry | undefined, name: string): Promise<AsyncIterable<Buffer>> {
  if (!entry) return Promise.reject(new ReadError('part-missing', `The file lacks its part "${name}": it is damaged, or not what its name says.`));
  const isDeflated = entry.compressionMethod === DEFLATED;
  return new Promise((resolve, reject) =>
    zip.openReadStream(entry, { decompress: isDeflated ? false : null, decrypt: null, start: null, end: null }, (error, stream) => {
      if (error) return reject(damaged(error));
      // What goes wrong in either stream is thrown to whoever reads the second.
      const out = isDeflated ? pipeline(stream, createInflateRaw({ chunkSize: PIECE }), () => {}) : stream;
      resolve(guard(out as AsyncIterable<Buffer>, entry.uncompressedSize));
    }),
  );
}

/** What goes wrong while unpacking is damage of the file as well, and so is a part of another size than declared. */
async function* guard(stream: AsyncIterable<Buffer>, size: number): AsyncGenerator<Buffer> {
  let left = size;
  try {
    for await (const chunk of stream) {
      left -= chunk.length;
      if (left < 0) break;
      yield chunk;
    }
  } catch (error) {
    throw damaged(error);
  }
  if (left !== 0) throw damaged(new Error(`The part holds ${size - left} bytes of ${size}`));
}
