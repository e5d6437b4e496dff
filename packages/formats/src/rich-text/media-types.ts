import { tableOf } from '@coomb/core';
const PICTURES = tableOf<string>({
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
  bmp: 'image/bmp',
  svg: 'image/svg+xml',
});

/** Media type of a picture that browsers show, by the ending of its name; undefined for all else. */
export function pictureTypeOf(name: string): string | undefined {
  return PICTURES[name.slice(name.lastIndexOf('.') + 1).toLowerCase()];
}

/** Media type of an embedded object: as its file says, else by the ending of its name. */
export function mediaTypeOf(name: string, said = ''): string {
  return said || (pictureTypeOf(name) ?? 'application/octet-stream');
}
