/** Signs of the Symbol font by the code that writers save for them (Adobe Symbol encoding), those that requirements use. */
const SYMBOL: Record<number, string> = Object.fromEntries(
  [
    ...'ΑΒΧΔΕΦΓΗΙϑΚΛΜΝΟΠΘΡΣΤΥςΩΞΨΖ'.split('').map((sign, at) => [0x41 + at, sign] as const),
    ...'αβχδεφγηιϕκλμνοπθρστυϖωξψζ'.split('').map((sign, at) => [0x61 + at, sign] as const),
    ...Object.entries({ 34: '∀', 36: '∃', 39: '∋', 42: '∗', 45: '−', 64: '≅', 92: '∴', 94: '⊥', 126: '∼' }),
    ...'€ϒ′≤⁄∞ƒ♣♦♥♠↔←↑→↓°±″≥×∝∂•÷≠≡≈…'.split('').map((sign, at) => [0xa0 + at, sign] as const),
    ...Object.entries({ 192: 'ℵ', 196: '⊗', 197: '⊕', 198: '∅', 199: '∩', 200: '∪', 201: '⊃', 202: '⊇', 204: '⊂', 205: '⊆', 206: '∈', 207: '∉' }),
    ...Object.entries({ 208: '∠', 209: '∇', 213: '∏', 214: '√', 215: '⋅', 216: '¬', 217: '∧', 218: '∨', 219: '⇔', 220: '⇐', 222: '⇒' }),
    ...Object.entries({ 229: '∑', 242: '∫' }),
  ].map(([code, sign]) => [Number(code), sign]),
);

/** Signs of the Wingdings fonts that forms and tables use. */
const WINGDINGS: Record<number, string> = {
  74: '☺',
  108: '●',
  110: '■',
  111: '□',
  113: '❑',
  117: '◆',
  159: '•',
  167: '▪',
  168: '◻',
  216: '➢',
  223: '←',
  224: '→',
  225: '↑',
  226: '↓',
  232: '➔',
  240: '⇨',
  251: '✗',
  252: '✓',
  253: '☒',
  254: '☑',
};

/** What stands for a sign that nobody knows. */
export const UNKNOWN_SIGN = '\uFFFD';

/** A sign of a picture font as the character it shows; `code` with or without the F000 that writers add. */
export function signOf(code: number, font: string): string {
  const low = code & 0xff;
  const table = /wingdings|webdings/i.test(font) ? WINGDINGS : SYMBOL;
  return table[low] ?? (low >= 0x20 && low < 0x7f && table === SYMBOL ? String.fromCharCode(low) : UNKNOWN_SIGN);
}

const PRIVATE = /[\uF020-\uF0FF]/g;

/** Text whose picture-font characters are made readable; most texts have none. */
export function readSigns(text: string, font: string): string {
  return text.replace(PRIVATE, (sign) => signOf(sign.charCodeAt(0), font));
}
