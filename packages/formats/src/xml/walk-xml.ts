import { newRecord } from '@coomb/core';
import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { ReadError } from '../read-error.js';
import { openXmlFilter } from './xml-characters.js';
import { findXmlEncoding, openXmlDecoder } from './xml-encoding.js';

export interface XmlVisitor {
  open(name: string, attributes: Record<string, string>, line: number): void;
  close(name: string): void;
  text?(text: string): void;
}

const DEEPEST = 2000;
/** Characters between two tags: longer ones are no text that somebody wrote. Pictures written into a file stay well below. */
const LONGEST_TEXT = 32 * 1024 * 1024;

/**
 * Feeds XML to a visitor, without building a tree. Entities other than the five of XML and character references are refused,
 * document types likewise, so nothing can be expanded or fetched. Throws ReadError with the line.
 */
export async function walkXml(chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>, visitor: XmlVisitor): Promise<void> {
  const parser = new SaxesParser({ xmlns: false, position: true });
  let depth = 0;
  let sinceTag = 0;
  let failure: Error | undefined;
  const fail = (error: ReadError) => {
    failure ??= error;
  };
  parser.on('doctype', () =>
    fail(
      new ReadError(
        'xml-doctype',
        `Line ${parser.line}: the file declares a document type (DOCTYPE), which Coomb does not read for safety: it may name other files and make text swell. If nothing in the file needs it, remove the DOCTYPE and try again; else have the file written without one.`,
      ),
    ),
  );
  parser.on('error', (error) =>
    fail(
      new ReadError('xml-broken', `Line ${parser.line}: the file is not well-formed XML (${error.message.replace(/^\d+:\d+:\s*/, '').replace(/\.$/, '')}).`),
    ),
  );
  parser.on('opentagstart', (tag) => {
    // The parser's own are hash tables, made and read at several times the cost.
    tag.attributes = newRecord<string>();
  });
  parser.on('opentag', (tag: SaxesTagPlain) => {
    sinceTag = 0;
    if (++depth > DEEPEST) fail(new ReadError('xml-deep', `Line ${parser.line}: elements are nested more than ${DEEPEST} deep; the file was refused.`));
    if (!failure) visitor.open(tag.name, tag.attributes, parser.line);
  });
  parser.on('closetag', (tag) => {
    sinceTag = 0;
    depth--;
    if (!failure) visitor.close(tag.name);
  });
  if (visitor.text) {
    const give = visitor.text.bind(visitor);
    parser.on('text', (text) => failure || give(text));
    parser.on('cdata', (text) => failure || give(text));
  }
  let decode: ((chunk?: Uint8Array) => string) | undefined;
  const filter = openXmlFilter();
  for await (const chunk of chunks) {
    decode ??= openXmlDecoder(findXmlEncoding(chunk));
    const text = filter(decode(chunk));
    sinceTag += text.length;
    parser.write(text);
    if (sinceTag > LONGEST_TEXT)
      fail(
        new ReadError(
          'xml-long',
          `Line ${parser.line}: more than ${LONGEST_TEXT / 1024 / 1024} million characters stand between two tags; the file was refused.`,
        ),
      );
    if (failure) throw failure;
  }
  parser.write(filter('', true));
  parser.close();
  if (failure) throw failure;
}

const MOST_NAMES = 2000;
const localNames = new Map<string, string>();

/** Name without its namespace prefix. Names recur by the thousand: each is cut once, so that comparing it later is comparing one and the same string. */
export function localName(name: string): string {
  const at = name.indexOf(':');
  if (at < 0) return name;
  const known = localNames.get(name);
  if (known !== undefined) return known;
  const local = name.slice(at + 1);
  if (localNames.size < MOST_NAMES && name.length < 100) localNames.set(name, local);
  return local;
}

/** Gives a buffer in pieces, so that parsing can be interrupted and the parser's copy stays small. */
export function* inChunks(bytes: Uint8Array, size = 1 << 16): Generator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
