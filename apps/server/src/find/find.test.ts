import { createItem, editItem, findItems, undo, withdrawItems } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { makeProject, useServer } from '../testing/test-server.js';

describe('finding items by what they say', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const add = (title: string, html = '', fields = {}) =>
      server.client.call(createItem, { params: { project }, body: { collection: requirements, title, html, fields } });
    const find = async (words: string, most = 20) => server.client.call(findItems, { params: { project }, query: { words, most } });
    const titles = async (words: string) => (await find(words)).map((found) => found.title);
    return { client, project, requirements, add, find, titles };
  }

  it('looks through titles, texts and fields, best first, and shows where the words stand', async () => {
    const { add, find, titles } = await scene();
    await add('Level of the pool', '<p>The <b>sluice</b> gate holds the level within 3 cm.</p>');
    await add('Sluice travel');
    await add('Lamps', '', { rationale: 'Boats see the sluice at night.' });
    expect(await titles('slui')).toEqual(['Sluice travel', 'Level of the pool', 'Lamps']);
    const [title, text, field] = await find('slui');
    expect([title!.titleMarks, title!.excerpt]).toEqual([[[0, 4]], null]);
    expect(text!.excerpt).toEqual({ where: '', text: 'The sluice gate holds the level within 3 cm.', marks: [[4, 8]] });
    expect(field!.excerpt).toMatchObject({ where: 'Rationale', text: 'Boats see the sluice at night.' });
    expect(await titles('sluice level')).toEqual(['Level of the pool']);
    expect(await find('')).toEqual([]);
    expect(await titles('  ')).toEqual([]);
  });

  it('puts the item whose reference it is first, then those whose references begin so', async () => {
    const { add, find } = await scene();
    for (let at = 1; at <= 12; at++) await add(at === 3 ? 'See REQ-001 and req 1' : `Item ${at}`);
    const references = async (words: string) => (await find(words)).map((found) => found.reference);
    expect((await references('req-001')).slice(0, 2)).toEqual(['REQ-001', 'REQ-003']);
    expect((await references('REQ-01')).slice(0, 3)).toEqual(['REQ-010', 'REQ-011', 'REQ-012']);
  });

  it('knows scripts without blanks, letters with accents, and both forms of a sign', async () => {
    const { add, titles } = await scene();
    await add('水門は一分以内に閉じる');
    await add('Größe der Schleuse');
    await add('E\u0301cluse');
    expect(await titles('一分')).toEqual(['水門は一分以内に閉じる']);
    expect(await titles('groesse')).toEqual([]);
    expect(await titles('grosse')).toEqual(['Größe der Schleuse']);
    expect(await titles('écluse')).toHaveLength(1);
  });

  it('follows every change: edits, items taken out, undo', async () => {
    const { client, project, add, titles } = await scene();
    const { id: first } = await add('Gate', '<p>old words</p>');
    expect(await titles('old')).toEqual(['Gate']);
    await client.call(editItem, { params: { project, item: first }, body: { revision: 1, html: '<p>new words</p>' } });
    expect([await titles('old'), await titles('new')]).toEqual([[], ['Gate']]);
    await client.call(withdrawItems, { params: { project }, body: { items: [first] } });
    expect(await titles('new')).toEqual([]);
    await client.call(undo, { params: { project }, body: {} });
    expect(await titles('new')).toEqual(['Gate']);
  });

  it('finds the items of a source by its name, those of an import at once, and the same after a restart', async () => {
    const { client, project, titles } = await scene();
    await titles('anything');
    await importThrough(client, project, 'Harbour rules.md', Buffer.from('# Boats\n\nBOAT-001: The boat waits.\n'), {
      collection: { name: 'Boats', prefix: 'BO', holds: 'specification' },
    });
    expect(await titles('harbour')).toContain('The boat waits.');
    expect(await titles('waits')).toEqual(['The boat waits.']);
    await server.restart();
    expect(await titles('harbour waits')).toEqual(['The boat waits.']);
  });
});
