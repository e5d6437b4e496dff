import { compareMoments, withdrawItems, writeCells } from '@coomb/contract';
import { unzipSync } from 'fflate';
import ExcelJS from 'exceljs';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('two moments compared', () => {
  const server = useServer();
  const scene = async () => {
    const { client } = server;
    const made = await makeProject(client);
    const { project, requirements, tests } = made;
    const section = await addItem(client, project, requirements, 'Levels', { heading: true });
    const level = await addItem(client, project, requirements, 'Hold the level', { parent: section.id });
    const flow = await addItem(client, project, requirements, 'Flow', { parent: section.id });
    const still = await addItem(client, project, requirements, 'Still');
    const opens = await addItem(client, project, tests, 'Opens');
    const link = await addLink(client, project, 'verifies', opens, level);
    const { seq: since } = await client.call(writeCells, {
      params: { project },
      body: { cells: [{ item: still.id, column: { sort: 'title' }, text: 'Still here' }] } as never,
    });
    const compare = (query: object = {}, asOf?: number) =>
      client.call(compareMoments, { params: { project }, query: { since, ...query } as never, ...(asOf && { asOf }) } as never);
    const reword = (item: { id: string }, text: string) =>
      client.call(writeCells, { params: { project }, body: { cells: [{ item: item.id, column: { sort: 'title' }, text }] } as never });
    return { ...made, client, section, level, flow, still, opens, link, since, compare, reword };
  };
  const told = (rows: Awaited<ReturnType<Awaited<ReturnType<typeof scene>>['compare']>>['rows']) =>
    rows.map(({ entity, did, item, phrase, other }) => [entity, did, item.title, ...(phrase ? [phrase, other?.title] : [])].join(' '));

  it('tell nothing where nothing changed', async () => {
    const { compare, since } = await scene();
    expect(await compare()).toMatchObject({ from: { seq: since }, to: { seq: since }, total: 0, rows: [], groups: [], persons: [] });
  });

  it('tell what came, went and changed, by words, and who had the last hand in it', async () => {
    const { compare, reword, client, project, requirements, level, flow, opens } = await scene();
    await reword(level, 'Hold the upper level');
    await withdrawOne(client, project, flow.id);
    const surge = await addItem(client, project, requirements, 'Surge');
    await addLink(client, project, 'verifies', opens, surge);
    const found = await compare();
    expect(told(found.rows).toSorted()).toEqual(['item came Surge', 'item changed Hold the upper level', 'item went Flow', 'link came Opens verifies Surge']);
    expect([found.items, found.links]).toEqual([
      { came: 1, went: 1, changed: 1, moved: 0 },
      { came: 1, went: 0, changed: 0, moved: 0 },
    ]);
    const changed = found.rows.find(({ did }) => did === 'changed')!;
    expect(changed.parts).toEqual([
      {
        part: 'Title',
        words: [
          { type: 'same', text: 'Hold the ' },
          { type: 'added', text: 'upper ' },
          { type: 'same', text: 'level' },
        ],
      },
    ]);
    expect([changed.person, found.persons]).toEqual(['Ada Wick', [{ person: 'Ada Wick', count: 4 }]]);
  });

  it('do not tell what was changed and changed back', async () => {
    const { compare, reword, level } = await scene();
    await reword(level, 'Other');
    await reword(level, 'Hold the level');
    expect((await compare()).total).toBe(0);
  });

  it('are narrowed, and stand together by section, person, change or what became of them', async () => {
    const { compare, reword, level, still } = await scene();
    await reword(level, 'A');
    await reword(still, 'B');
    expect((await compare({ entity: 'link' })).total).toBe(0);
    expect((await compare({ did: 'changed' })).total).toBe(2);
    expect((await compare({ person: 'Ada Wick' })).total).toBe(2);
    expect((await compare({ among: `${still.id},${level.id}` })).total).toBe(2);
    expect(await compare({ among: still.id })).toMatchObject({ total: 1, items: { changed: 2 }, rows: [{ item: { id: still.id } }] });
    expect((await compare({ among: '' })).total).toBe(0);
    expect((await compare({ group: 'did' })).groups).toEqual([{ label: 'Changed', count: 2 }]);
    expect((await compare({ group: 'change' })).groups).toHaveLength(2);
    expect((await compare()).groups.map(({ label }) => label.split(' · ').at(-1))).toContain('Levels');
    const second = await compare({ offset: 1, most: 1 });
    expect([second.total, second.rows.length]).toEqual([2, 1]);
  });

  it('are told as of an earlier moment, and refused the wrong way round', async () => {
    const { reword, level, still, since, project } = await scene();
    const { seq: first } = await reword(level, 'A');
    await reword(still, 'B');
    const read = async (from: number, asOf: number) => {
      const reply = await fetch(`${server.address}/api/projects/${project}/compared?since=${from}&asOf=${asOf}`);
      return (await reply.json()) as { total: number; to: { seq: number }; rows: { item: { title: string } }[]; error: { message: string } };
    };
    const found = await read(since, first);
    expect([found.total, found.to.seq, found.rows[0]!.item.title]).toEqual([1, first, 'A']);
    expect((await read(first + 1, first)).error.message).toContain('is later than');
  });

  it('are saved as a document with marks in the text, as a workbook and as separated values', async () => {
    const { reword, level, since, project } = await scene();
    await reword(level, 'Hold the upper level');
    const fetchAs = (format: string) =>
      fetch(`${server.address}/api/projects/${project}/compared/${format}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ since }),
      });
    const document = new TextDecoder().decode(unzipSync(new Uint8Array(await (await fetchAs('docx')).arrayBuffer()))['word/document.xml']);
    expect(document).toMatch(/<w:u [^>]*\/?>[\s\S]{0,200}upper /);
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(await (await fetchAs('xlsx')).arrayBuffer());
    expect(book.worksheets[0]!.getRow(2).values).toEqual(expect.arrayContaining(['changed', 'Hold the level', 'Hold the upper level']));
    expect(await (await fetchAs('csv')).text()).toContain('Hold the upper level');
  });
});

const withdrawOne = (client: ReturnType<typeof useServer>['client'], project: string, item: string) =>
  client.call(withdrawItems, { params: { project }, body: { items: [item] } as never });
