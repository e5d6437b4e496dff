import { PNG } from 'pngjs';

/** A small drawn plan: the river as a band, gates or gauges as marks. Made here, so that it is ours. */
export function buildRiverPicture(variant: number): { bytes: Buffer; width: number; height: number } {
  const width = 720;
  const height = 260;
  const png = new PNG({ width, height });
  const set = (x: number, y: number, colour: [number, number, number]) => {
    if (x >= 0 && y >= 0 && x < width && y < height) png.data.set([...colour, 255], (Math.round(y) * width + Math.round(x)) * 4);
  };
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) set(x, y, [240, 236, 224]);
  for (let x = 0; x < width; x++) {
    const middle = 130 + 45 * Math.sin(x / 110 + variant);
    for (let y = -32; y < 32; y++) set(x, middle + y, Math.abs(y) > 28 ? [120, 135, 110] : [150, 180, 200]);
  }
  const marks = variant === 0 ? [120, 560] : [60, 210, 350, 500, 650];
  for (const x of marks) {
    const middle = 130 + 45 * Math.sin(x / 110 + variant);
    if (variant === 0) for (let y = -44; y < 44; y++) for (let w = -4; w < 4; w++) set(x + w, middle + y, [60, 50, 45]);
    else for (let a = 0; a < 360; a++) for (let r = 0; r < 12; r++) set(x + r * Math.cos(a), middle - 30 + r * Math.sin(a), [165, 70, 45]);
  }
  return { bytes: PNG.sync.write(png), width, height };
}
