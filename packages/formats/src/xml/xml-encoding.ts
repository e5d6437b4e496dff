import { TextDecoder } from 'node:util';
import { ReadError } from '../read-error.js';

/** How the characters of an XML file are written as bytes. */
export interface XmlEncoding {
  /** As the Encoding Standard names it. */
  name: string;
  /** Whether the file begins with a byte order mark. */
  hasMark: boolean;
}

/** Encoding by byte order mark, XML declaration, or how the first letters lie; UTF-8 otherwise. Throws ReadError for one that is not known. */
export function findXmlEncoding(start: Uint8Array): XmlEncoding {
  if (start[0] === 0xff && start[1] === 0xfe) return { name: 'utf-16le', hasMark: true };
  if (start[0] === 0xfe && start[1] === 0xff) return { name: 'utf-16be', hasMark: true };
  if (start[0] === 0x3c && start[1] === 0) return { name: 'utf-16le', hasMark: false };
  if (start[0] === 0 && start[1] === 0x3c) return { name: 'utf-16be', hasMark: false };
  const hasMark = start[0] === 0xef && start[1] === 0xbb && start[2] === 0xbf;
  const declared = /<\?xml[^>]*?encoding\s*=\s*["']([\w.:-]+)["']/.exec(Buffer.from(start.subarray(0, 400)).toString('latin1'))?.[1];
  if (hasMark || declared === undefined) return { name: 'utf-8', hasMark };
  try {
    const { encoding } = new TextDecoder(declared);
    // A declaration that could be read byte by byte cannot be of two bytes a letter, whatever it says.
    return { name: encoding.startsWith('utf-16') ? 'utf-8' : encoding, hasMark };
  } catch {
    throw new ReadError('xml-encoding', `The file declares the encoding "${declared}", which is not known. Save it as UTF-8 and try again.`);
  }
}

/** A decoder for text that comes in pieces. */
export function openXmlDecoder(encoding: XmlEncoding): (chunk?: Uint8Array) => string {
  const decoder = new TextDecoder(encoding.name);
  // Asked for a stream it decodes Windows-1252 as it is; asked for all at once this platform takes it for Latin-1.
  return (chunk) => decoder.decode(chunk ?? new Uint8Array(0), { stream: true });
}

const reverse = new Map<string, Map<string, number> | undefined>();

/** Byte of each character in an encoding of one byte a character; undefined for others. */
function bytesOf(name: string): Map<string, number> | undefined {
  if (reverse.has(name)) return reverse.get(name);
  const found = new Map<string, number>();
  for (let byte = 0; byte < 256; byte++) {
    const text = new TextDecoder(name).decode(Uint8Array.of(byte), { stream: true });
    if (text.length === 1 && text !== '\ufffd') found.set(text, byte);
  }
  const isSingle = found.size > 200;
  reverse.set(name, isSingle ? found : undefined);
  return isSingle ? found : undefined;
}

/** Whether text can be written in an encoding again; a file in another goes out as UTF-8. */
export function canEncode(name: string): boolean {
  return name === 'utf-8' || name.startsWith('utf-16') || bytesOf(name) !== undefined;
}

/** Text as bytes. What an encoding of one byte a character has no byte for is written as a character reference. */
export function encodeXml(text: string, name: string): Buffer {
  if (name === 'utf-8') return Buffer.from(text);
  if (name === 'utf-16le') return Buffer.from(text, 'utf16le');
  if (name === 'utf-16be') return Buffer.from(text, 'utf16le').swap16();
  const bytes = bytesOf(name)!;
  const out: number[] = [];
  for (const character of text) {
    const byte = bytes.get(character);
    if (byte !== undefined) out.push(byte);
    else for (const digit of `&#${character.codePointAt(0)};`) out.push(digit.charCodeAt(0));
  }
  return Buffer.from(out);
}

/** The mark that a file of this encoding began with. */
export function markOf({ name, hasMark }: XmlEncoding): Buffer {
  if (!hasMark) return Buffer.alloc(0);
  return name === 'utf-8' ? Buffer.from([0xef, 0xbb, 0xbf]) : Buffer.from(name === 'utf-16le' ? [0xff, 0xfe] : [0xfe, 0xff]);
}
