import { describe, expect, it } from 'vitest';
import { readKeyFile, writeKeyFile } from './KeyFile';

const key = { shown: { sort: 'field', of: 'priority' }, entries: [{ value: 'High', label: 'urgent', fill: '#aa4433' }] };
const view = { name: 'By priority', body: { key: JSON.stringify(key) } };

describe('a colour key as a file', () => {
  it('comes back as it went, under a name that is free', () => {
    const read = readKeyFile(writeKeyFile(view), ['by PRIORITY', 'By priority (2)']);
    if (typeof read === 'string') throw new Error(read);
    expect(read.name).toBe('By priority (3)');
    expect(JSON.parse(read.key)).toMatchObject(key);
  });

  it('is refused with what is wrong with it', () => {
    expect([readKeyFile('', []), readKeyFile('[]', []), readKeyFile('{"what":"lens","name":"x","key":{}}', [])]).toEqual(
      Array(3).fill(expect.stringContaining('is no colour key')),
    );
    expect(readKeyFile(JSON.stringify({ what: 'colour key', name: 'Odd', key: { entries: 1 } }), [])).toContain('“Odd” of this file is not whole');
  });
});
