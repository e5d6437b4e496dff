import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);

/** What a report is set in: family, file, and the characters that the file has (as its makers divide them). */
const fonts = [
  [
    'Literata',
    '@fontsource-variable/literata/files/literata-latin-wght-normal.woff2',
    'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02DC,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD',
  ],
  [
    'Literata',
    '@fontsource-variable/literata/files/literata-latin-ext-wght-normal.woff2',
    'U+0100-0130,U+0132-0151,U+0154-02BA,U+1E00-1EFF,U+20A0-20AB,U+20AD-20C0,U+2113,U+2C60-2C7F,U+A720-A7FF',
  ],
  ['Commissioner', '@fontsource-variable/commissioner/files/commissioner-latin-wght-normal.woff2', 'U+0000-00FF,U+0131,U+0152-0153,U+2000-206F,U+2122,U+2212'],
] as const;

let faces: string | undefined;

/** Font faces with their files inside, so that a page that was saved or sent looks as it did. Other scripts take the reader's own fonts. */
export function fontFaces(): string {
  faces ??= fonts
    .map(([family, path, range]) => {
      const data = readFileSync(require.resolve(path)).toString('base64');
      return `@font-face{font-family:'${family}';font-weight:200 900;font-display:swap;unicode-range:${range};src:url(data:font/woff2;base64,${data}) format('woff2')}`;
    })
    .join('\n');
  return faces;
}
