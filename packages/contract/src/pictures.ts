import { z } from 'zod';
import { idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';

/** Bytes of a picture that is put into a text. */
export const mostPictureBytes = 20 * 1024 * 1024;

export const storePicture = endpoint({
  method: 'POST',
  path: '/projects/:project/pictures',
  summary: 'Store a picture for a text (multipart field "file"): PNG, JPEG, GIF, WebP, BMP or SVG. The same picture is stored once',
  params: projectParams,
  consumes: 'multipart/form-data',
  reply: z.object({ id: idSchema, mediaType: z.string(), /** What an `img` in a text says. */ address: z.string() }),
});
export type StoredPicture = z.infer<(typeof storePicture)['reply']>;
