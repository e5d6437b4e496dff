import { tableOf } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { type Index, writeIndex } from '../rich-text/indices.js';
import { localName, walkXml } from '../xml/walk-xml.js';

export interface SharedStrings {
  texts: string[];
  /** Those with a passage that is struck through. */
  struck: Set<number>;
}

/** Places of a run of text above or below the line, and what they are called in markup. */
export const INDICES = tableOf<Index>({ superscript: 'sup', subscript: 'sub' });
const MOST_TEXTS = 1_500_000;

export async function readSharedStrings(chunks: AsyncIterable<Uint8Array>): Promise<SharedStrings> {
  const texts: string[] = [];
  const struck = new Set<number>();
  let text = '';
  let reading = false;
  let index: Index | undefined;
  let phonetic = 0;
  const add = (own: string) => {
    if (texts.push(own) > MOST_TEXTS)
      throw new ReadError('sheet-too-large', `The workbook holds more than ${MOST_TEXTS.toLocaleString('en-GB')} different texts and was refused. Divide it.`);
  };
  await walkXml(chunks, {
    open(name, attributes) {
      const local = localName(name);
      if (local === 'si') text = '';
      else if (local === 'r') index = undefined;
      else if (local === 'vertAlign') index = INDICES[attributes.val ?? ''];
      else if (local === 'rPh') phonetic++;
      else if (local === 't') reading = phonetic === 0;
      else if (local === 'strike' && attributes.val !== '0') struck.add(texts.length);
    },
    close(name) {
      const local = localName(name);
      if (local === 'si') add(unescapeControls(text));
      else if (local === 'rPh') phonetic--;
      else if (local === 't') reading = false;
      else if (local === 'r') index = undefined;
    },
    text(part) {
      if (reading) text += index ? (writeIndex(part, index) ?? part) : part;
    },
  });
  return { texts, struck };
}

/** Control characters are written as _x000D_; carriage returns before line ends go. */
export function unescapeControls(text: string): string {
  if (!text.includes('_x')) return text;
  return text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, code: string) => (code === '000D' || code === '000d' ? '' : String.fromCharCode(Number.parseInt(code, 16))));
}
