import sanitizeHtml from 'sanitize-html';

/** Scheme of pictures inside a document that is not stored yet. */
export const pictureScheme = 'coomb-picture:';
/** Scheme of other objects inside a document that is not stored yet. */
export const embeddedScheme = 'coomb-file:';

/** Elements that rich text may hold. */
export const keptTags: readonly string[] = [
  'p',
  'br',
  'strong',
  'em',
  'u',
  's',
  'sub',
  'sup',
  'ul',
  'ol',
  'li',
  'table',
  'thead',
  'tbody',
  'tr',
  'td',
  'th',
  'img',
  'a',
  'code',
  'blockquote',
];

const options: sanitizeHtml.IOptions = {
  allowedTags: [...keptTags],
  allowedAttributes: { img: ['src', 'alt'], a: ['href'], td: ['colspan', 'rowspan'], th: ['colspan', 'rowspan'] },
  allowedSchemes: ['http', 'https', 'mailto'],
  allowedSchemesByTag: { img: ['coomb-picture'], a: ['http', 'https', 'mailto', 'coomb-file'] },
  allowProtocolRelative: false,
  transformTags: { b: 'strong', i: 'em', strike: 's', del: 's' },
  exclusiveFilter: (frame) => frame.tag === 'img' && !(frame.attribs.src?.startsWith(pictureScheme) || frame.attribs.src?.startsWith('/api/')),
};

/** Rich text with everything left out that is not plain formatting: no scripts, styles, events or outside pictures. */
export function sanitiseRichText(html: string): string {
  return sanitizeHtml(html, options);
}

/** Plain words of rich text, blocks parted by line ends. */
export function plainText(html: string): string {
  return html
    .replace(/<br\s*\/?>|<\/(p|li|tr|h\d)>/gi, '\n')
    .replace(/<\/t[dh]>/gi, '\t')
    .replace(/<[^>]*>/g, '')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'")
    .replace(/&nbsp;/g, ' ')
    .replace(/&amp;/g, '&')
    .trim();
}
