import { describe, expect, it } from 'vitest';
import type { FileFormat } from './format/file-format.js';
import { fileFormats, readFileContent } from './file-formats.js';

/** All that a further format is: what it is called, which bytes are of it, and how they read. */
const log: FileFormat = {
  id: 'log',
  label: 'Gate log',
  mediaType: 'text/plain',
  extensions: ['log'],
  fits: (_, extension) => extension === 'log',
  read: async (bytes, name) => ({
    type: 'sheets',
    sheets: [
      {
        name,
        rows: Buffer.from(bytes)
          .toString('utf8')
          .trim()
          .split('\n')
          .map((line) => line.split(' ')),
      },
    ],
    issues: [],
  }),
};
const formats = [...fileFormats, log];

describe('a format that is added', () => {
  it('reads its files by one file and one line, and is named among those that are read', async () => {
    const { format, content } = await readFileContent('night.log', Buffer.from('time gate\n02:10 3\n'), {}, formats);
    expect(format.label).toBe('Gate log');
    expect(content).toMatchObject({
      type: 'sheets',
      sheets: [
        {
          rows: [
            ['time', 'gate'],
            ['02:10', '3'],
          ],
        },
      ],
    });
    await expect(readFileContent('night.xyz', Buffer.from('?'), {}, formats)).rejects.toThrow(/is of no kind that Coomb reads.*\.log/);
    await expect(readFileContent('night.log', Buffer.from('?'))).rejects.toThrow('is of no kind that Coomb reads');
  });
});
