import { describe, expect, it } from 'vitest';
import { pictureIn } from './picture-in.js';

describe('what a picture is by its bytes', () => {
  it.each([
    ['image/png', Buffer.from('\x89PNG\r\n\x1a\nrest', 'latin1')],
    ['image/jpeg', Buffer.from([0xff, 0xd8, 0xff, 0xe0])],
    ['image/gif', Buffer.from('GIF89a')],
    ['image/webp', Buffer.from('RIFF\0\0\0\0WEBPVP8 ', 'latin1')],
    ['image/bmp', Buffer.from('BM....')],
    ['image/svg+xml', Buffer.from('\uFEFF<?xml version="1.0"?>\n<!-- drawn --><svg xmlns="http://www.w3.org/2000/svg"/>')],
    [undefined, Buffer.from('<html><svg></svg></html>')],
    [undefined, Buffer.from('%PDF-1.7')],
    [undefined, Buffer.alloc(0)],
  ])('%s', (type, bytes) => expect(pictureIn(bytes)).toBe(type));
});
