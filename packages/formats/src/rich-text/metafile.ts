import { gunzipSync } from 'node:zlib';

/** Drawings of formulas and plans take a few kilobytes; larger ones stay in the stored file. */
const MOST_BYTES = 4 * 1024 * 1024;

/** Whether a picture is recorded as drawing calls, as older office programs keep formulas and plans. */
export function isMetafile(name: string): boolean {
  return /\.(?:emf|wmf|emz|wmz)$/i.test(name);
}

/** The picture as SVG, the same bytes each time; undefined where it cannot be drawn. */
export async function drawMetafile(bytes: Uint8Array): Promise<Uint8Array | undefined> {
  try {
    const plain = bytes[0] === 0x1f && bytes[1] === 0x8b ? gunzipSync(bytes, { maxOutputLength: MOST_BYTES }) : bytes;
    if (plain.length > MOST_BYTES) return undefined;
    const { convertMetafileToSvg } = await import('emf-converter');
    const svg = await convertMetafileToSvg(new Uint8Array(plain).buffer);
    // The names of clips and gradients are counted on from picture to picture.
    return svg ? Buffer.from(svg.replace(/\bemf\d+-/g, 'emf-')) : undefined;
  } catch {
    return undefined;
  }
}
