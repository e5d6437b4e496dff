import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const source = readFileSync(join(import.meta.dirname, 'theme.ts'), 'utf8');

/** Every colour pair of the theme by name, read from its source: `bg.panel` → [light, dark]. */
function readPairs(): Map<string, [string, string]> {
  const pairs = new Map<string, [string, string]>();
  const colours = source.slice(source.indexOf('colors: {'));
  let group = '';
  for (const line of colours.split('\n')) {
    const opened = /^\s*(\w+): \{/.exec(line)?.[1];
    if (opened && opened !== 'colors') group = opened;
    for (const [, name, light, dark] of line.matchAll(/(\w+): pair\('(#\w{6})', '(#\w{6})'\)/g))
      pairs.set(name === 'DEFAULT' ? group : line.includes(`${group}: {`) || /^\s{8,}\w+: pair/.test(line) ? `${group}.${name}` : name!, [light!, dark!]);
  }
  return pairs;
}

function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5]
    .map((at) => Number.parseInt(colour.slice(at, at + 2), 16) / 255)
    .map((part) => (part <= 0.03928 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4)) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast ratio of WCAG 2.2. */
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

const pairs = readPairs();
const colour = (name: string, theme: 0 | 1) => {
  const pair = pairs.get(name);
  if (!pair) throw new Error(`The theme has no colour ${name}; it has ${[...pairs.keys()].join(', ')}`);
  return pair[theme];
};

describe.each([
  ['light', 0],
  ['dark', 1],
] as const)('the %s theme', (_, theme) => {
  const grounds = ['bg', 'bg.subtle', 'bg.panel'];

  it.each(['fg', 'fg.muted', 'fg.error', 'fg.warning', 'moss.fg', 'brick.fg'])('%s can be read on every ground (AA)', (name) => {
    for (const ground of grounds) expect(contrast(colour(name, theme), colour(ground, theme)), `${name} on ${ground}`).toBeGreaterThanOrEqual(4.5);
  });

  it('buttons can be read (AA)', () => {
    expect(contrast(colour('moss.contrast', theme), colour('moss.solid', theme))).toBeGreaterThanOrEqual(4.5);
    expect(contrast(colour('brick.contrast', theme), colour('brick.solid', theme))).toBeGreaterThanOrEqual(4.5);
  });

  it('marked rows can be read (AA)', () => {
    for (const ground of ['moss.subtle', 'moss.muted']) expect(contrast(colour('fg', theme), colour(ground, theme)), ground).toBeGreaterThanOrEqual(4.5);
    expect(contrast(colour('brick.fg', theme), colour('brick.subtle', theme))).toBeGreaterThanOrEqual(4.5);
  });
});
