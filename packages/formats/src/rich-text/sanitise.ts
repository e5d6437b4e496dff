import { deepestRichText, itemScheme, mathAttributes, mathTags, measureDepth, richTextTags } from '@coomb/core';
import sanitizeHtml from 'sanitize-html';
import { ReadError } from '../read-error.js';

export { plainText } from './plain-text.js';

/** Scheme of pictures inside a document that is not stored yet. */
export const pictureScheme = 'coomb-picture:';
/** Scheme of other objects inside a document that is not stored yet. */
export const embeddedScheme = 'coomb-file:';

/** A span of one says nothing. */
function plainSpans(tagName: string, attribs: sanitizeHtml.Attributes): sanitizeHtml.Tag {
  const { colspan, rowspan } = attribs;
  return { tagName, attribs: { ...(colspan && colspan !== '1' && { colspan }), ...(rowspan && rowspan !== '1' && { rowspan }) } };
}

const options: sanitizeHtml.IOptions = {
  allowedTags: [...richTextTags],
  allowedAttributes: {
    img: ['src', 'alt'],
    a: ['href'],
    td: ['colspan', 'rowspan'],
    th: ['colspan', 'rowspan'],
    ...Object.fromEntries(mathTags.map((tag) => [tag, [...mathAttributes]])),
  },
  allowedSchemes: ['http', 'https', 'mailto'],
  allowedSchemesByTag: { img: ['coomb-picture'], a: ['http', 'https', 'mailto', 'coomb-file', itemScheme.slice(0, -1)] },
  allowProtocolRelative: false,
  transformTags: { b: 'strong', i: 'em', strike: 's', del: 's', td: plainSpans, th: plainSpans },
  exclusiveFilter: (frame) => frame.tag === 'img' && !(frame.attribs.src?.startsWith(pictureScheme) || frame.attribs.src?.startsWith('/api/')),
};

/**
 * Rich text with everything left out that is not plain formatting: no scripts, styles, events or outside pictures. Throws ReadError
 * `text-deep` for elements that stand too deep in one another: a parser would take very long over them.
 */
export function sanitiseRichText(html: string): string {
  if (isPlain(html)) return html;
  const depth = measureDepth(html);
  if (depth > deepestRichText)
    throw new ReadError(
      'text-deep',
      `A text has elements ${depth.toLocaleString('en-GB')} deep in one another; at most ${deepestRichText} are taken. Lists or formatting in it are opened and never closed. Paste it as plain text.`,
    );
  return sanitizeHtml(html, options);
}

/** Elements that stand in plain rich text, without attributes; which ends which is told by a count of open ones. */
const PLAIN = /[^<>&"\r\0]+|"|&(?:amp|lt|gt);|<(\/?)(p|strong|em|u|s|sub|sup|ul|ol|li|code|blockquote)>|<br \/>/y;

/** Whether a text holds nothing but words, the three usual escapes and well-nested plain elements: it comes out as it went in, so that most texts need no parser. */
function isPlain(html: string): boolean {
  const open: string[] = [];
  for (PLAIN.lastIndex = 0; PLAIN.lastIndex < html.length; ) {
    const match = PLAIN.exec(html);
    if (!match) return false;
    const [, end, tag] = match;
    if (tag === undefined) continue;
    // A parser ends paragraphs and list items by itself where such elements begin in them.
    if (!end && (/^(p|[uo]l|blockquote)$/.test(tag) ? open.includes('p') : tag === 'li' && open.at(-1) === 'li')) return false;
    if (!end) {
      if (open.push(tag) > deepestRichText) return false;
    } else if (open.pop() !== tag) return false;
  }
  return open.length === 0;
}
