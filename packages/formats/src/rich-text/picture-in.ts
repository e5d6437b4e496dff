const SIGNS: [mediaType: string, at: number, bytes: string][] = [
  ['image/png', 0, '\x89PNG\r\n\x1a\n'],
  ['image/jpeg', 0, '\xff\xd8\xff'],
  ['image/gif', 0, 'GIF8'],
  ['image/webp', 8, 'WEBP'],
  ['image/bmp', 0, 'BM'],
];

/** Media type of a picture by how its bytes begin, whatever its name says; undefined for what browsers do not show. */
export function pictureIn(bytes: Uint8Array): string | undefined {
  const start = Buffer.from(bytes.subarray(0, 1000));
  const letters = start.toString('latin1');
  const found = SIGNS.find(([, at, sign]) => letters.startsWith(sign, at));
  if (found) return found[0];
  return /^\uFEFF?\s*(?:<\?xml[^>]*>\s*)?(?:<!--[\s\S]*?-->\s*|<!DOCTYPE svg[^>]*>\s*)*<svg[\s>]/i.test(start.toString('utf8')) ? 'image/svg+xml' : undefined;
}
