import { PNG } from 'pngjs';
import type { Readiness } from '@coomb/contract';
import { chartOrder, paperColours } from './palette.js';

const WIDTH = 1200;
const BAR = 36;
const GAP = 20;

/** The bars of the state chart as a PNG: one bar per collection, parts by share. Names and numbers stand in the table beside it. */
export function buildChartPicture(collections: Readiness['collections']): { bytes: Buffer; width: number; height: number; names: string[] } | undefined {
  const bars = collections
    .map((collection) => ({ name: collection.name, counts: chartOrder.map((state) => collection.states[state]) }))
    .filter(({ counts }) => counts.some((count) => count > 0));
  if (bars.length === 0) return undefined;
  const height = bars.length * (BAR + GAP) - GAP;
  const png = new PNG({ width: WIDTH, height });
  png.data.fill(255);
  bars.forEach(({ counts }, row) => {
    const total = counts.reduce((sum, count) => sum + count, 0);
    let x = 0;
    counts.forEach((count, index) => {
      const end = Math.round(x + (count / total) * WIDTH);
      paint(png, Math.round(x), row * (BAR + GAP), end, BAR, paperColours[chartOrder[index]!]);
      x += (count / total) * WIDTH;
    });
  });
  return { bytes: PNG.sync.write(png), width: WIDTH, height, names: bars.map((bar) => bar.name) };
}

function paint(png: PNG, from: number, top: number, to: number, height: number, colour: string): void {
  const [red, green, blue] = [0, 2, 4].map((at) => Number.parseInt(colour.slice(at, at + 2), 16)) as [number, number, number];
  for (let y = top; y < top + height; y++) for (let x = from; x < to; x++) png.data.set([red, green, blue, 255], (y * png.width + x) * 4);
}
