import { buildUrl, compareFile, exportCollection, getProject, listSources, redo, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { makeProject, useServer } from '../testing/test-server.js';

const ROWS = 2600;
const csv = (word: string) => {
  const title = (index: number) => (index === 1 || index === ROWS ? word : `Gate ${index}`);
  return Buffer.from(`ID,Title,Text\n${Array.from({ length: ROWS }, (_, at) => `G-${at + 1},${title(at + 1)},The gate ${at + 1} shall close.`).join('\n')}\n`);
};

describe('a file that is written while somebody works', () => {
  const server = useServer();

  it('tells of one moment: the first item and the last, changed together, are both as before or both as after', async () => {
    const { client } = server;
    const { project } = await makeProject(client);
    const params = { project };
    await importThrough(client, project, 'gates.csv', csv('Before'), { collection: { name: 'Gates', prefix: 'G', holds: 'specification' } });
    const source = (await client.call(listSources, { params }))[0]!.id;
    const newer = await client.upload(project, 'gates 2.csv', csv('After'));
    const { seq } = await client.call(compareFile, { params: { project, tray: newer.id }, body: { source } });
    await importThrough(client, project, 'gates 2.csv', csv('After'), { again: { source, seq } });
    const collection = (await client.call(getProject, { params })).collections.find(({ prefix }) => prefix === 'G')!.id;

    let working = true;
    let turns = 0;
    const work = (async () => {
      for (; working; turns++) await client.call(turns % 2 === 0 ? undo : redo, { params });
    })();
    const seen = new Set<string>();
    for (let round = 0; round < 12; round++) {
      const text = await (await fetch(server.address + buildUrl(exportCollection.path, { project, collection, format: 'csv' }))).text();
      const titleOf = (reference: string) => new RegExp(`^${reference},([^,]*),`, 'm').exec(text)?.[1];
      const ends = [titleOf('G-1'), titleOf(`G-${ROWS}`)];
      expect(ends[1]).toBe(ends[0]);
      seen.add(ends[0]!);
      expect(text.trimEnd().split('\n')).toHaveLength(ROWS + 1);
    }
    working = false;
    await work;
    expect(turns).toBeGreaterThan(10);
    expect([...seen].every((one) => one === 'Before' || one === 'After')).toBe(true);
  });
});
