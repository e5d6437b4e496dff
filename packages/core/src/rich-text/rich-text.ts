/** Elements of formulas: MathML 3, presentation, with the note of how a formula was typed. Nothing that acts, and no other language in it. */
export const mathTags: readonly string[] = [
  ...['math', 'semantics', 'annotation', 'mrow', 'mi', 'mn', 'mo', 'mtext', 'mspace', 'ms', 'mfrac', 'msqrt', 'mroot', 'mstyle', 'merror', 'mpadded'],
  ...['mphantom', 'mfenced', 'menclose', 'msub', 'msup', 'msubsup', 'munder', 'mover', 'munderover', 'mmultiscripts', 'mprescripts', 'none'],
  ...['mtable', 'mtr', 'mlabeledtr', 'mtd'],
];

/** What elements of formulas may say of themselves. */
export const mathAttributes: readonly string[] = [
  ...['display', 'mathvariant', 'displaystyle', 'scriptlevel', 'form', 'fence', 'separator', 'stretchy', 'symmetric', 'largeop', 'movablelimits'],
  ...['accent', 'accentunder', 'lspace', 'rspace', 'minsize', 'maxsize', 'linethickness', 'width', 'height', 'depth', 'voffset', 'open', 'close'],
  ...[
    'separators',
    'notation',
    'columnalign',
    'rowalign',
    'columnspacing',
    'rowspacing',
    'columnlines',
    'rowlines',
    'frame',
    'columnspan',
    'rowspan',
    'encoding',
  ],
];

/** Stands before the id of an item in the address of a link in a text, so that the link outlives references that change. */
export const itemScheme = 'coomb-item:';

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
  'pre',
  'figure',
  'figcaption',
  ...mathTags,
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
