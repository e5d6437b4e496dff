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
  return isPlain(html) ? html : sanitizeHtml(html, options);
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
    if (!end) open.push(tag);
    else if (open.pop() !== tag) return false;
  }
  return open.length === 0;
}

/** Plain words of rich text, blocks parted by line ends. */
export function plainText(html: string): string {
  if (!/[<&]/.test(html)) return html.trim();
  return (
    html
      // A list in a list begins a line, and ends with the line of its last item.
      .replace(/(?<!^|<\/(?:p|[uo]l|table|blockquote)>|<(?:li|blockquote|t[dh][^<>]*)>)<[uo]l>/gi, '\n')
      .replace(/(<\/[uo]l>)<\/li>/gi, '$1')
      .replace(/<br\s*\/?>|<\/(p|li|tr|h\d)>/gi, '\n')
      .replace(/<\/t[dh]>/gi, '\t')
      .replace(/<[^>]*>/g, '')
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&quot;/g, '"')
      .replace(/&#39;/g, "'")
      .replace(/&nbsp;/g, ' ')
      .replace(/&amp;/g, '&')
      .trim()
  );
}
