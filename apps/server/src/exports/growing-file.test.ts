import { describe, expect, it } from 'vitest';
import { GrowingFile } from './growing-file.js';

const piece = (text: string) => Buffer.from(text);
async function readAll(file: GrowingFile): Promise<string> {
  let text = '';
  for await (const one of file.read()) text += Buffer.from(one).toString();
  return text;
}

describe('a file that is being written', () => {
  it('is the same to all who read it, whenever they come', async () => {
    const file = new GrowingFile();
    const early = readAll(file);
    const name = file.name();
    file.begin('a.csv');
    file.add(piece('one '));
    await new Promise(setImmediate);
    const between = readAll(file);
    file.add(piece('two '));
    file.add(piece('three'));
    file.end();
    expect(await name).toBe('a.csv');
    expect(await Promise.all([early, between, readAll(file)])).toEqual(Array(3).fill('one two three'));
  });

  it('gives what has come before all has', async () => {
    const file = new GrowingFile();
    file.begin('a.csv');
    file.add(piece('one'));
    const reading = file.read();
    expect(Buffer.from((await reading.next()).value as Uint8Array).toString()).toBe('one');
    let came = false;
    const next = reading.next().then(() => {
      came = true;
    });
    await new Promise(setImmediate);
    expect(came).toBe(false);
    file.end();
    await next;
    expect(came).toBe(true);
  });

  it('that fails half-way is no whole file to anybody', async () => {
    const file = new GrowingFile();
    const name = file.name();
    file.fail(new Error('The disk is full.'));
    await expect(name).rejects.toThrow('full');
    await expect(readAll(file)).rejects.toThrow('full');
  });
});
