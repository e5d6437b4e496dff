import { canEncode, encodeXml, findXmlEncoding, markOf, openXmlDecoder } from './xml-encoding.js';

/** What becomes of one element of a file. */
export interface XmlEdit {
  /** New values of attributes; null takes one away. */
  attributes?: Record<string, string | null>;
  /** Text instead of what the element holds. */
  text?: string;
  /** The element goes, with all that is in it. */
  drop?: boolean;
  /** Markup that comes first in the element. */
  prepend?: string;
  /** Markup that comes last in the element. */
  append?: string;
  /** Markup that follows the element. */
  after?: string;
}

export const escapeText = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
export const escapeAttribute = (text: string): string =>
  escapeText(text).replace(/"/g, '&quot;').replace(/\n/g, '&#10;').replace(/\t/g, '&#9;').replace(/\r/g, '&#13;');

/**
 * A file of XML with some of its elements edited, by their number in the order in which they begin, from 0. What is not edited stays byte for
 * byte as it came. The file must be well-formed and without a document type: it has been read before.
 */
export function rewriteXml(bytes: Uint8Array, edits: ReadonlyMap<number, XmlEdit>): Buffer {
  if (edits.size === 0) return Buffer.from(bytes);
  const encoding = findXmlEncoding(bytes);
  const text = openXmlDecoder(encoding)(bytes);
  const outgoing = canEncode(encoding.name) ? encoding.name : 'utf-8';
  const written = spliceXml(text, edits);
  const said = outgoing === encoding.name ? written : written.replace(/^(<\?xml[^>]*?encoding\s*=\s*["'])[\w.:-]+/, '$1UTF-8');
  return Buffer.concat([markOf({ ...encoding, name: outgoing }), encodeXml(said, outgoing)]);
}

interface Open {
  number: number;
  edit: XmlEdit | undefined;
  /** Where in the output it began, for what is dropped or replaced. */
  start: number;
  contentStart: number;
}

/** As `rewriteXml`, on text. */
export function spliceXml(text: string, edits: ReadonlyMap<number, XmlEdit>): string {
  const out: string[] = [];
  const stack: Open[] = [];
  let number = 0;
  let at = 0;
  /** Depth at which everything is left out, or -1. */
  let dropping = -1;
  const put = (piece: string) => {
    if (dropping < 0 && piece) out.push(piece);
  };
  while (at < text.length) {
    const next = text.indexOf('<', at);
    if (next < 0) break;
    const end = endOfMarkup(text, next);
    const markup = text.slice(next, end);
    put(text.slice(at, next));
    at = end;
    if (markup.startsWith('<!') || markup.startsWith('<?')) {
      put(markup);
      continue;
    }
    if (markup.startsWith('</')) {
      const open = stack.pop();
      if (open?.edit?.text !== undefined && dropping < 0) out.length = open.contentStart;
      if (open?.edit && dropping < 0) put((open.edit.text === undefined ? '' : escapeText(open.edit.text)) + (open.edit.append ?? ''));
      put(markup + (open?.edit?.after ?? ''));
      if (dropping === stack.length) dropping = -1;
      continue;
    }
    const edit = edits.get(number++);
    const isEmpty = markup.endsWith('/>');
    if (edit?.drop && dropping < 0) {
      trimIndent(out);
      if (!isEmpty) {
        stack.push({ number, edit: undefined, start: out.length, contentStart: out.length });
        dropping = stack.length - 1;
      }
      continue;
    }
    const tag = edit?.attributes ? withAttributes(markup, edit.attributes) : markup;
    if (isEmpty) {
      const content = (edit?.prepend ?? '') + (edit?.text === undefined ? '' : escapeText(edit.text)) + (edit?.append ?? '');
      put((content ? `${tag.slice(0, -2).trimEnd()}>${content}</${nameOf(tag)}>` : tag) + (edit?.after ?? ''));
      continue;
    }
    const start = out.length;
    put(tag + (edit?.prepend ?? ''));
    stack.push({ number, edit, start, contentStart: out.length });
  }
  put(text.slice(at));
  return out.join('');
}

/** The end tag of what was dropped was put nowhere; the line that it stood on goes with it. */
function trimIndent(out: string[]): void {
  const last = out.at(-1);
  if (last !== undefined && /^\s*$/.test(last)) out.pop();
}

const nameOf = (tag: string): string => /^<([^\s/>]+)/.exec(tag)![1]!;

/** Index behind a piece of markup that begins at `from`. */
function endOfMarkup(text: string, from: number): number {
  if (text.startsWith('<!--', from)) return text.indexOf('-->', from) + 3;
  if (text.startsWith('<![CDATA[', from)) return text.indexOf(']]>', from) + 3;
  if (text.startsWith('<?', from)) return text.indexOf('?>', from) + 2;
  for (let at = from + 1; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === 62) return at + 1;
    if (code === 34) at = text.indexOf('"', at + 1);
    else if (code === 39) at = text.indexOf("'", at + 1);
    if (at < 0) break;
  }
  return text.length;
}

const ATTRIBUTE = /(\s+)([^\s=/>]+)(\s*=\s*)("[^"]*"|'[^']*')/g;

/** A tag with attributes set, added or taken away; the others stay as they were written. */
function withAttributes(tag: string, attributes: Record<string, string | null>): string {
  const left = new Map(Object.entries(attributes));
  const changed = tag.replace(ATTRIBUTE, (whole, before: string, name: string, equals: string) => {
    const value = left.get(name);
    if (value === undefined) return whole;
    left.delete(name);
    return value === null ? '' : `${before}${name}${equals}"${escapeAttribute(value)}"`;
  });
  const added = [...left].map(([name, value]) => (value === null ? '' : ` ${name}="${escapeAttribute(value)}"`)).join('');
  return added ? changed.replace(/\s*(\/?>)$/, `${added.replaceAll('$', '$$$$')}$1`) : changed;
}
