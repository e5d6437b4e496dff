import { describe, expect, it } from 'vitest';
import { readDocx } from '../docx/read-docx.js';
import { readFileContent } from '../file-formats.js';
import { docxOf, paragraph, run, zipOf } from '../testing/office-files.js';
import { openArchive } from './zip.js';

const limits = { entries: 3, unpacked: 10_000 };

describe('openArchive', () => {
  it('reads what is in it, whole or in chunks', async () => {
    const archive = await openArchive(zipOf({ 'a.txt': 'hello', 'b/c.txt': 'there' }));
    expect(archive.names).toEqual(['a.txt', 'b/c.txt']);
    expect((await archive.read('b/c.txt')).toString()).toBe('there');
    await expect(archive.read('gone')).rejects.toMatchObject({ code: 'part-missing' });
  });

  it.each([
    ['nothing at all', new Uint8Array(0), 'file-empty'],
    ['plain text', Buffer.from('hello there'), 'not-an-archive'],
    ['a protected or old file', Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 1, 2, 3]), 'file-encrypted'],
    ['an archive cut short', zipOf({ 'a.txt': 'hello '.repeat(500) }).subarray(0, 60), 'archive-damaged'],
    ['more parts than allowed', zipOf({ a: '1', b: '2', c: '3', d: '4' }), 'archive-too-large'],
    ['more bytes than allowed', zipOf({ a: 'x'.repeat(20_000) }), 'archive-too-large'],
  ])('refuses %s', async (_, bytes, code) => {
    await expect(openArchive(bytes, limits)).rejects.toMatchObject({ code });
  });

  it('refuses what would unpack to gigabytes without unpacking it', async () => {
    const bytes = zipOf({ 'word/document.xml': '0'.repeat(6_000_000) });
    const size = Buffer.alloc(4);
    size.writeUInt32LE(4_000_000_000);
    const lying = Buffer.from(bytes);
    const directory = lying.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    size.copy(lying, directory + 24);
    await expect(readDocx(lying)).rejects.toMatchObject({ code: 'archive-too-large', message: expect.stringContaining('400 MB') });
  });

  it('refuses parts that swell as no document does, and no small ones', async () => {
    await expect(openArchive(zipOf({ 'word/document.xml': new Uint8Array(17 * 1024 * 1024) }))).rejects.toMatchObject({
      code: 'archive-swells',
      message: expect.stringContaining('word/document.xml'),
    });
    expect((await openArchive(zipOf({ a: new Uint8Array(15 * 1024 * 1024) }))).names).toEqual(['a']);
  });

  it('notices a part that holds more than it declares', async () => {
    const lying = Buffer.from(zipOf({ 'a.txt': 'x'.repeat(5000) }));
    const directory = lying.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    lying.writeUInt32LE(10, directory + 24);
    await expect((await openArchive(lying)).read('a.txt')).rejects.toMatchObject({ code: 'archive-damaged' });
  });
});

describe('files that are not what they seem', () => {
  it.each([
    ['report.docx', zipOf({ 'xl/workbook.xml': '<workbook/>' }), 'not-a-docx'],
    ['book.xlsx', zipOf({ 'word/document.xml': '<x/>' }), 'not-a-workbook'],
    ['broken.docx', docxOf('<w:p><w:r>'), 'xml-broken'],
    [
      'bomb.docx',
      zipOf({ 'word/document.xml': '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><w:document><w:t>&b;</w:t></w:document>' }),
      'xml-doctype',
    ],
    ['deep.docx', docxOf('<w:tbl>'.repeat(3000) + '</w:tbl>'.repeat(3000)), 'xml-deep'],
    ['notes.pages', Buffer.from('x'), 'format-unknown'],
    ['empty.xmi', new Uint8Array(0), 'file-empty'],
    ['page.xml', Buffer.from('<html><body/></html>'), 'not-xmi'],
    ['data.csv', Buffer.from([0x41, 0, 0, 0x42, 0]), 'not-text'],
  ])('%s is refused', async (name, bytes, code) => {
    await expect(readFileContent(name, bytes)).rejects.toMatchObject({ code });
  });

  it('says the line where XML breaks', async () => {
    await expect(readFileContent('a.xmi', Buffer.from('<a>\n<b>\n</a>'))).rejects.toThrow(/Line 3/);
  });

  it('reads each format by its content, not only its name', async () => {
    const format = async (name: string, text: string) => (await readFileContent(name, Buffer.from(text))).format.id;
    expect(await format('run.xml', '<?xml version="1.0"?><!-- x --><testsuites><testsuite name="a"/></testsuites>')).toBe('junit');
    expect(await format('model.xml', '<xmi:XMI xmlns:xmi="x"/>')).toBe('xmi');
    expect(await format('list.csv', 'a;b')).toBe('csv');
    expect((await readFileContent('x.docx', docxOf(paragraph(run('hi'))))).format.id).toBe('docx');
  });
});
