/** Signs of ten by ten that tell entries of a key apart where colours do not. */
export const glyphs = {
  dot: 'M5 1.5a3.5 3.5 0 1 0 0 7a3.5 3.5 0 1 0 0-7z',
  square: 'M1.8 1.8h6.4v6.4h-6.4z',
  triangle: 'M5 1.2 9 8.6H1z',
  diamond: 'M5 .6 9.4 5 5 9.4.6 5z',
  bar: 'M1 3.6h8v2.8H1z',
  post: 'M3.6 1h2.8v8H3.6z',
  plus: 'M3.8 1h2.4v2.8H9v2.4H6.2V9H3.8V6.2H1V3.8h2.8z',
  corner: 'M1 1h8L1 9z',
} as const;
export type GlyphName = keyof typeof glyphs;
export const glyphNames = Object.keys(glyphs) as GlyphName[];

export const dashes = ['solid', 'dashed', 'dotted'] as const;
export type Dash = (typeof dashes)[number];

/** How something is drawn by a colour key: what is not said stays as it is. */
export interface Coat {
  /** "#1a2b3c", as all colours here. */
  fill?: string | undefined;
  line?: string | undefined;
  /** Pixels, or the drawing's own unit. */
  width?: number | undefined;
  dash?: Dash | undefined;
  glyph?: GlyphName | undefined;
}

/** Lengths of strokes and gaps of a line; none for one that is solid or not said. */
export const dashOf = (dash: Dash | undefined): readonly number[] => (dash === 'dashed' ? [5, 4] : dash === 'dotted' ? [1.5, 3] : []);
