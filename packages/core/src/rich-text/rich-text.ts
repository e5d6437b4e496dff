/** Elements that rich text may hold. */
export const richTextTags: readonly string[] = [
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

/** How deep elements may stand in one another. Parsers take time that grows faster than the depth. */
export const deepestRichText = 200;

const VOID = new Set(['br', 'img', 'hr', 'input', 'col', 'wbr', 'meta', 'link', 'area', 'base', 'embed', 'source', 'track', 'param']);
const TAG = /<(\/?)([a-z][a-z0-9]*)/gi;

/** How deep elements stand in one another at most, unclosed ones included: in one pass, before any parser sees the text. */
export function measureDepth(html: string): number {
  let [depth, deepest] = [0, 0];
  for (const match of html.matchAll(TAG)) {
    if (VOID.has(match[2]!.toLowerCase())) continue;
    depth = match[1] ? Math.max(0, depth - 1) : depth + 1;
    if (depth > deepest) deepest = depth;
  }
  return deepest;
}
