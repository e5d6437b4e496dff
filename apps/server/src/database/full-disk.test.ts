import { setTimeout as wait } from 'node:timers/promises';
import { createProject, listProjects } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

const rows = (count: number, from = 0) =>
  Buffer.from(`ID,Title,Text\n${Array.from({ length: count }, (_, i) => `A-${from + i},Row ${i},${'word '.repeat(60)}`).join('\n')}`);
const collection = { name: 'A', prefix: 'A', holds: 'specification' } as const;

describe('a disk with little room', () => {
  let free = 10 * 1024 ** 3;
  const server = useServer({ askRoom: async () => free });

  it('refuses changes, files and imports before they begin, says why, and takes them again when there is room', async () => {
    const { project, requirements } = await makeProject(server.client);
    const entry = await server.client.upload(project, 'a.csv', rows(20));
    free = 150 * 1024 ** 2;
    await wait(1100);
    await expect(addItem(server.client, project, requirements, 'Refused')).rejects.toMatchObject({
      code: 'disk-full',
      message: expect.stringMatching(/has 150 MB left.*200 must stay free.*Nothing was changed/),
    });
    await expect(server.client.upload(project, 'b.csv', rows(2))).rejects.toMatchObject({ code: 'disk-full' });
    await expect(server.client.call(createProject, { body: { name: 'No' } })).rejects.toMatchObject({ code: 'disk-full' });
    await expect(importThrough(server.client, project, 'a.csv', rows(2), { collection })).rejects.toMatchObject({ code: 'disk-full' });
    expect(await server.client.call(listProjects)).toHaveLength(1);
    free = 10 * 1024 ** 3;
    await wait(1100);
    expect((await addItem(server.client, project, requirements, 'Taken')).reference).toBe('REQ-001');
    expect(entry.name).toBe('a.csv');
  });
});

describe('a disk that is full all of a sudden', () => {
  const said: string[] = [];
  const server = useServer({ diskBytes: 60 * 1024 * 1024, onDied: (message) => said.push(message) });

  it('ends the database with a message, answers everybody, and loses nothing that was answered', async () => {
    const { project } = await makeProject(server.client);
    let stored = 0;
    const error = await (async () => {
      for (let round = 0; ; round++) {
        await importThrough(server.client, project, `${round}.csv`, rows(2000, round * 2000), { collection: { ...collection, name: `A${round}` } });
        stored += 2000;
      }
    })().catch((cause: Error) => cause);
    expect(stored).toBeGreaterThan(0);
    expect(String(error.message)).toMatch(/disk is full|database has stopped|went wrong/i);
    // Whatever the database did of itself, everybody who asks from now on gets an answer.
    const answers = await Promise.all(
      Array.from({ length: 5 }, () => server.client.call(createProject, { body: { name: 'More' } }).catch((cause: { code?: string }) => cause.code)),
    );
    for (const answer of answers) expect(['disk-full', 'unavailable']).toContain(answer);
    if (said.length > 0) expect(said).toEqual([expect.stringMatching(/the database gave up: .*(No space|could not).*restore/s)]);
    await server.restart({});
    const [kept] = await server.client.call(listProjects);
    expect(kept!.items).toBeGreaterThanOrEqual(stored);
    expect(kept!.items % 2000).toBe(0);
    await makeProject(server.client, 'After');
  }, 240_000);
});
