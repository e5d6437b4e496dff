/** How a mark looks: a shape of its own, so that no colour need be told apart, and a colour. Paths are drawn within -1 to 1. */
export interface Glyph {
  path: string;
  token: string;
  /** Several steps are a shape with a way through it. */
  isDerived: boolean;
}

const disc = 'M -1 0 A 1 1 0 1 0 1 0 A 1 1 0 1 0 -1 0 Z';
const shapes = [
  disc,
  'M -0.85 -0.85 H 0.85 V 0.85 H -0.85 Z',
  'M 0 -1.05 L 1.05 0.8 H -1.05 Z',
  'M 0 -1.15 L 1.15 0 L 0 1.15 L -1.15 0 Z',
  'M 0 1.05 L 1.05 -0.8 H -1.05 Z',
  'M -1 -0.38 H -0.38 V -1 H 0.38 V -0.38 H 1 V 0.38 H 0.38 V 1 H -0.38 V 0.38 H -1 Z',
  'M -1 -0.9 H 1 L 0.35 0 L 1 0.9 H -1 L -0.35 0 Z',
  'M 0 -1.1 L 1 -0.35 L 0.65 0.95 H -0.65 L -1 -0.35 Z',
];
const tokens = ['moss.solid', 'heather.fg', 'state.planned', 'brick.fg'];

/** Two small discs and what joins them: one gets there through another. */
const through = 'M -1.15 0 A 0.5 0.5 0 0 1 -0.2 -0.2 H 0.2 A 0.5 0.5 0 1 1 0.2 0.2 H -0.2 A 0.5 0.5 0 0 1 -1.15 0 Z';

/** What stayed is small, what came is a cross that adds, what went is struck through: in the order of `comparedMarks`. */
export const comparedGlyphs: readonly Glyph[] = [
  { path: 'M -0.55 0 A 0.55 0.55 0 1 0 0.55 0 A 0.55 0.55 0 1 0 -0.55 0 Z', token: 'fg.subtle', isDerived: false },
  { path: shapes[5]!, token: 'moss.solid', isDerived: false },
  {
    path: 'M -1 -0.62 L -0.62 -1 L 0 -0.38 L 0.62 -1 L 1 -0.62 L 0.38 0 L 1 0.62 L 0.62 1 L 0 0.38 L -0.62 1 L -1 0.62 L -0.38 0 Z',
    token: 'brick.fg',
    isDerived: false,
  },
];

/** Look of each mark by its place: of single steps a full shape, of several steps a bow. */
export function glyphsOf(marks: readonly { way: readonly unknown[] }[]): Glyph[] {
  let [direct, derived] = [0, 0];
  return marks.map(({ way }) => {
    if (way.length > 1) return { path: through, token: tokens[(1 + derived++) % tokens.length]!, isDerived: true };
    const at = direct++;
    return { path: shapes[at % shapes.length]!, token: tokens[(at + Math.floor(at / shapes.length)) % tokens.length]!, isDerived: false };
  });
}
