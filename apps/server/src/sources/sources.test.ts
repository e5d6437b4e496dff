import {
  type BodyOf,
  clipPassage,
  compareFile,
  createProject,
  getItem,
  getOutline,
  getProject,
  keepSource,
  listSources,
  readSource,
  removeClipping,
  undo,
} from '@coomb/contract';
import { textOfBlock } from '@coomb/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { makeProject, useServer } from '../testing/test-server.js';

const demo = (name: string) => readFileSync(join(process.cwd(), 'demo', 'files', name));
const text = Buffer.from('# Gates\n\nThe gate shall stop within 2 s. It is grey.\n\nPriority: High\n\nThe lamp shall burn. See REQ-001.\n');

describe('a stored source', () => {
  const server = useServer();

  it('shows a document with its items at their places', async () => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Shown' } });
    await importThrough(client, project, 'spec.docx', demo('2 Larkbeck system requirements.docx'), {
      collection: { name: 'S', prefix: 'SYS', holds: 'specification' },
    });
    const [source] = await client.call(listSources, { params: { project } });
    const read = await client.call(readSource, { params: { project, source: source!.id } });
    if (read.content.type !== 'document') throw new Error('not a document');
    const { blocks } = read.content;
    expect(read.items).toHaveLength(155);
    const place = read.items.find(({ item }) => item.reference === 'SYS-001')!.place;
    const block = blocks[place.block!]!;
    expect(block.type === 'table' && block.rows[place.row!]!.map((cell) => cell.text)).toContain('SYS-001');
    const addresses = [...JSON.stringify(blocks).matchAll(/src=\\"([^"\\]+)/g)].map(([, address]) => address!);
    expect(addresses).toHaveLength(2);
    for (const address of addresses) expect((await fetch(server.address + address)).headers.get('content-type')).toBe('image/png');
  });

  it.each([
    ['3 Larkbeck model.xmi', 'model', true],
    ['11 Lock passage.bpmn', 'model', true],
    ['13 Gate drive signals.ssd', 'model', true],
    ['7 Gate drive of the supplier.reqif', 'text', true],
    ['4 Larkbeck test cases.xlsx', 'sheets', false],
  ])('shows %s as %s, each item at its place', async (name, type, lines) => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name } });
    await importThrough(client, project, name, demo(name), { collection: { name: 'S', prefix: 'X', holds: 'specification' } });
    const [source] = await client.call(listSources, { params: { project } });
    const { content, items } = await client.call(readSource, { params: { project, source: source!.id } });
    expect(content.type).toBe(type);
    expect(items.every(({ line }) => (line !== null) === lines)).toBe(true);
    if (content.type === 'text') for (const { line } of items.slice(0, 20)) expect(content.lines[line! - 1]).toMatch(/</);
    if (content.type !== 'model') return;
    // Every item is an element of the tree, at the line that the text has it in.
    const text = await client.call(readSource, { params: { project, source: source!.id }, query: { as: 'text' } });
    const { lines: all } = text.content as { lines: string[] };
    for (const { item, place, line } of items) {
      const at = content.id.indexOf(place.element!);
      expect(at, item.title).toBeGreaterThanOrEqual(0);
      expect(content.line[at]).toBe(line);
      expect(all[line! - 1]).toContain('<');
    }
    content.parent.forEach((parent, at) => expect(parent).toBeLessThan(at));
  });

  it('shows a newer version with the places that hold there', async () => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Versions' } });
    await importThrough(client, project, 'spec.csv', Buffer.from('ID,Title\nA-1,One\nA-2,Two'), {
      collection: { name: 'S', prefix: 'A', holds: 'specification' },
    });
    const [first] = await client.call(listSources, { params: { project } });
    const { seq } = await client.call(getProject, { params: { project } });
    await importThrough(client, project, 'spec 2.csv', Buffer.from('ID,Title\nA-0,None\nA-1,One\nA-2,Two'), { again: { source: first!.id, seq } });
    const second = (await client.call(listSources, { params: { project } })).find((one) => one.name === 'spec 2.csv')!;
    const rows = async (source: string) =>
      (await client.call(readSource, { params: { project, source } })).items.map(({ item, place }) => `${item.reference} ${place.row}`).sort();
    expect(await rows(first!.id)).toEqual(['A-1 1', 'A-2 2']);
    expect(await rows(second.id)).toEqual(['A-0 1', 'A-1 2', 'A-2 3']);
    expect((await client.call(readSource, { params: { project, source: first!.id } })).newer).toBe(second.id);
  });

  it('is not there any more when its import was undone', async () => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Undone' } });
    await importThrough(client, project, 'a.csv', Buffer.from('ID,Title\nA-1,One'), { collection: { name: 'S', prefix: 'A', holds: 'specification' } });
    const [source] = await client.call(listSources, { params: { project } });
    await client.call(undo, { params: { project } });
    await expect(client.call(readSource, { params: { project, source: source!.id } })).rejects.toMatchObject({ code: 'not-found' });
  });
});

describe('clipping', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const entry = await client.upload(project, 'notes.md', text);
    const { source } = await client.call(keepSource, { params: { project, tray: entry.id }, body: {} });
    const read = () => client.call(readSource, { params: { project, source } });
    const { content } = await read();
    if (content.type !== 'document') throw new Error('not a document');
    const clip = (quote: string, wish: Partial<BodyOf<typeof clipPassage>>) => {
      const block = content.blocks.findIndex((one) => textOfBlock(one as never).includes(quote));
      const start = textOfBlock(content.blocks[block] as never).indexOf(quote);
      return client.call(clipPassage, {
        params: { project, source },
        body: { passages: [{ block, start, end: start + quote.length, quote }], as: 'item', collection: requirements, ...wish },
      });
    };
    return { client, project, requirements, source, read, clip };
  }

  it('makes an item of a passage; both know each other', async () => {
    const { client, project, clip, read } = await scene();
    const { item } = await clip('The gate shall stop within 2 s.', {});
    expect(item).toMatchObject({ reference: 'REQ-001', title: 'The gate shall stop within 2 s.', html: '<p>The gate shall stop within 2 s.</p>' });
    expect((await read()).clippings).toMatchObject([{ quote: 'The gate shall stop within 2 s.', field: 'text', item: { reference: 'REQ-001' } }]);
    expect(await client.call(getItem, { params: { project, item: 'REQ-001' } })).toMatchObject({ origin: 'clipped', source: { name: 'notes.md' } });
  });

  it('makes one item of several passages, with clean formatting', async () => {
    const { clip, read } = await scene();
    const passages = [
      { block: 1, start: 0, end: 4, quote: 'The ' },
      { block: 2, start: 0, end: 3, quote: 'and' },
    ];
    const { item } = await clip('It is grey.', { passages, html: '<p>5 m<sup>2</sup><script>alert(1)</script></p><ul><li onclick="x()">and</li></ul>' });
    expect(item).toMatchObject({ title: 'The', html: '<p>5 m<sup>2</sup></p><ul><li>and</li></ul>' });
    expect((await read()).clippings.map(({ block, quote, item: { reference } }) => [block, quote, reference])).toEqual([
      [1, 'The', 'REQ-001'],
      [2, 'and', 'REQ-001'],
    ]);
  });

  it('makes children, the next after the current, and fields of the current item', async () => {
    const { client, project, clip } = await scene();
    const { item: first } = await clip('The gate shall stop within 2 s.', {});
    await clip('It is grey.', { as: 'child', item: first.id });
    await clip('The lamp shall burn.', { item: first.id });
    const outline = await client.call(getOutline, { params: { project } });
    expect(outline.reference.map((reference, row) => `${reference}<${outline.reference[outline.parent[row]!] ?? ''}`)).toEqual([
      'REQ-001<',
      'REQ-002<REQ-001',
      'REQ-003<',
    ]);
    const filled = await clip('High', { as: 'field', item: first.id, field: 'priority' });
    expect(filled.item.fields).toEqual({ priority: 'High' });
    const longer = await clip('It is grey.', { as: 'field', item: first.id, field: 'text' });
    expect(longer.item.html).toBe('<p>The gate shall stop within 2 s.</p><p>It is grey.</p>');
    expect((await clip('Gates', { as: 'field', item: first.id, field: 'title' })).item.title).toBe('Gates');
    expect((await clip('It is grey.', { as: 'field', item: first.id, field: 'priority' })).issues).toMatchObject([{ at: 'Priority' }]);
  });

  it('links the current item to the references in the passage', async () => {
    const { client, project, clip } = await scene();
    await clip('The gate shall stop within 2 s.', {});
    const { item: lamp } = await clip('The lamp shall burn.', {});
    expect((await clip('See REQ-001.', { as: 'link', item: lamp.id })).links).toBe(1);
    const sheet = await client.call(getItem, { params: { project, item: lamp.id } });
    expect(sheet.upstream.map((link) => [link.other.reference, link.origin])).toEqual([['REQ-001', 'clipped']]);
    await expect(clip('It is grey.', { as: 'link', item: lamp.id })).rejects.toMatchObject({
      code: 'input-invalid',
      message: expect.stringContaining('No reference'),
    });
  });

  it('lets a passage go and keeps the item; undo takes a clipping back with what it made', async () => {
    const { client, project, clip, read } = await scene();
    await clip('The gate shall stop within 2 s.', {});
    const [clipping] = (await read()).clippings;
    await client.call(removeClipping, { params: { project, clipping: clipping!.id } });
    expect((await read()).clippings).toEqual([]);
    expect((await client.call(getOutline, { params: { project } })).reference).toEqual(['REQ-001']);
    await client.call(undo, { params: { project } });
    await client.call(undo, { params: { project } });
    expect((await client.call(getOutline, { params: { project } })).reference).toEqual([]);
    expect((await read()).clippings).toEqual([]);
  });

  it('carries clippings over to a newer version by their words, and lists those it cannot place', async () => {
    const { client, project, source, clip } = await scene();
    await clip('The gate shall stop within 2 s.', {});
    await clip('The lamp shall burn.', {});
    const entry = await client.upload(
      project,
      'notes 2.md',
      Buffer.from('# Preface\n\nNew.\n\n# Gates\n\nFirst: The gate shall stop within 2 s. It is green.\n'),
    );
    const kept = await client.call(keepSource, { params: { project, tray: entry.id }, body: { again: source } });
    expect([kept.carried, kept.lost]).toEqual([1, 1]);
    const read = await client.call(readSource, { params: { project, source: kept.source } });
    expect(read.clippings.map((one) => [one.item.reference, one.block, one.start])).toEqual([['REQ-001', 3, 7]]);
    expect(read.lost.map((one) => one.item.reference)).toEqual(['REQ-002']);
  });

  it('tells each passage of an item that a newer version lost, until another is clipped instead', async () => {
    const { client, project, requirements, source, clip } = await scene();
    const { item } = await clip('The gate shall stop within 2 s.', {});
    await clip('The lamp shall burn.', { as: 'field', item: item.id, field: 'text' });
    const entry = await client.upload(project, 'notes 2.md', Buffer.from('# Gates\n\nThe gate shall stop within 2 s. The lamp shall shine.\n'));
    const kept = await client.call(keepSource, { params: { project, tray: entry.id }, body: { again: source } });
    const read = () => client.call(readSource, { params: { project, source: kept.source } });
    expect((await read()).lost.map((one) => one.quote)).toEqual(['The lamp shall burn.']);
    const passages = [{ block: 1, start: 32, end: 53, quote: 'The lamp shall shine.' }];
    const body = { passages, as: 'field' as const, field: 'text', item: item.id, collection: requirements };
    await client.call(clipPassage, { params: { project, source: kept.source }, body });
    expect((await read()).lost).toEqual([]);
  });

  it('leaves clipped items alone when a newer version is imported by a recipe', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const issue = (number: number) => Buffer.from(`# Gates\n\nSYS-1: The gate shall stop within ${number} s.\n\nThe lamp burns at night.\n`);
    await importThrough(client, project, 'gates.md', issue(2), { collection: { id: requirements } });
    const [source] = await client.call(listSources, { params: { project } });
    const passages = [{ block: 2, start: 0, end: 24, quote: 'The lamp burns at night.' }];
    const { item } = await client.call(clipPassage, { params: { project, source: source!.id }, body: { passages, as: 'item', collection: requirements } });
    const entry = await client.upload(project, 'gates 2.md', issue(3));
    const { counts } = await client.call(compareFile, { params: { project, tray: entry.id }, body: { source: source!.id } });
    expect(counts).toMatchObject({ changed: 1, removed: 0, new: 0 });
    expect((await client.call(getItem, { params: { project, item: item.id } })).withdrawn).toBe(false);
  });

  it('says what is missing', async () => {
    const { clip } = await scene();
    await expect(clip('It is grey.', { as: 'child' })).rejects.toMatchObject({ message: expect.stringContaining('none is current') });
    await expect(clip('It is grey.', { passages: [{ block: 0, start: 9, end: 9, quote: 'x' }] })).rejects.toMatchObject({
      message: expect.stringContaining('Nothing is selected'),
    });
  });
});
