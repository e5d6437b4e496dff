import type { Dash, GlyphName } from './coat.js';
import { readerOf, sayValue } from './read-column.js';
import type { Shown } from './register.js';
import type { RegisterGround } from './shows/show.js';

export interface ColourEntry {
  /** The value as it is kept; of numbers and days the highest that still has this colour, nothing for those above all others. */
  value: string;
  /** What it is called beside what it colours; its value where nothing else is said. */
  label?: string | undefined;
  /** "#1a2b3c". */
  fill: string;
  line?: string | undefined;
  width?: number | undefined;
  dash?: Dash | undefined;
  glyph?: GlyphName | undefined;
}

/** Colours for what items say: one for each value, or for ranges of numbers or days. The first entry that fits colours the item. */
export interface ColourKey {
  /** What is coloured; items where nothing is said. */
  about?: 'items' | 'links' | undefined;
  shown: Shown;
  /** Whether entries are bounds of ranges, in rising order. */
  ranges: boolean;
  entries: ColourEntry[];
}

/**
 * Fills that eyes which tell few colours apart tell apart, too, and in either theme: Okabe and Ito, "Color Universal Design", 2008; beyond eight they
 * come again, lighter.
 */
const SAFE = ['#0072b2', '#e69f00', '#009e73', '#cc79a7', '#56b4e9', '#d55e00', '#f0e442', '#999999'];

export function proposeFills(count: number): string[] {
  return Array.from({ length: count }, (_, at) => lighten(SAFE[at % SAFE.length]!, Math.min(0.75, 0.4 * Math.floor(at / SAFE.length))));
}

function lighten(fill: string, by: number): string {
  return `#${channels(fill)
    .map((one) =>
      Math.round(one + (255 - one) * by)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

const channels = (fill: string): [number, number, number] => [1, 3, 5].map((at) => Number.parseInt(fill.slice(at, at + 2), 16)) as [number, number, number];

/** Relative luminance (WCAG 2.2). */
function luminance(fill: string): number {
  const [r, g, b] = channels(fill).map((one) => {
    const share = one / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast of two colours, from 1 to 21 (WCAG 2.2). */
export function contrastOf(one: string, other: string): number {
  const [a, b] = [luminance(one), luminance(other)];
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** The ink that can be read on a fill: black or white, whichever stands out more. One of them reaches 4.5 on every fill. */
export const inkOn = (fill: string): string => (contrastOf(fill, '#000000') >= contrastOf(fill, '#ffffff') ? '#000000' : '#ffffff');

/** Which entry colours an item, and what it says where none does. Nothing where the key asks for what is not in the project. */
export function colourerOf(ground: RegisterGround, key: ColourKey): ((node: number) => { entry: number; value: string }) | undefined {
  const reader = readerOf(ground, { way: [], shown: key.shown, as: 'list' });
  if (!reader) return undefined;
  const placeOf = new Map(key.entries.map(({ value }, place) => [value.toLowerCase(), place]));
  const isNumber = reader.type === 'number';
  return (node) => {
    const read = reader.read(node);
    if (read === null) return { entry: placeOf.get('') ?? -1, value: '' };
    if (!key.ranges) {
      const values = Array.isArray(read) ? (read as readonly string[]) : [sayValue(read)];
      const found = values.flatMap((one) => placeOf.get(one.toLowerCase()) ?? []);
      return { entry: found.length > 0 ? Math.min(...found) : -1, value: sayValue(read) };
    }
    const value = sayValue(read);
    const fits = ({ value: bound }: ColourEntry) => bound === '' || (isNumber ? Number(read) <= Number(bound) : value.slice(0, bound.length) <= bound);
    return { entry: key.entries.findIndex(fits), value };
  };
}
