import { getBatch, keepView, listSavedViews, readSavedBody, renameView, type SavedViewSort, savedViewSorts, undo, withdrawView } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { makeProject, useServer } from '../testing/test-server.js';

describe('kept views', () => {
  const server = useServer();
  const names = async (project: string, sort?: string) =>
    (await server.client.call(listSavedViews, { params: { project }, query: { ...(sort && { sort }) } })).map(({ name, body }) => [name, body]);

  it('are kept, renamed, kept anew and taken back as anything else of the project', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const keep = (name: string, body: Record<string, unknown>) => client.call(keepView, { params: { project }, body: { sort: 'matrix', name, body } });
    const kept = await keep('Tests of requirements', { rows: requirements, columns: tests });
    const unsaid = { rowKinds: '', columnKinds: '', rowBelow: '', columnBelow: '', rowsBy: '', columnsBy: '', marks: '', order: 'outline', level: '' };
    const whole = { ...unsaid, rows: requirements, columns: tests, show: 'all', uses: 'lines' };
    expect(kept).toMatchObject({ sort: 'matrix', name: 'Tests of requirements', body: whole, person: 'Ada Wick' });
    await keep('tests of requirements', { rows: requirements, columns: tests, show: 'rowGaps' });
    expect(await names(project)).toEqual([['tests of requirements', { ...whole, show: 'rowGaps' }]]);
    await client.call(renameView, { params: { project, view: kept.id }, body: { name: 'Gaps' } });
    await client.call(keepView, { params: { project }, body: { sort: 'bench', name: 'Gaps', body: {} } });
    expect((await names(project, 'matrix')).map(([name]) => name)).toEqual(['Gaps']);
    await client.call(withdrawView, { params: { project, view: kept.id } });
    expect((await names(project)).map(([name]) => name)).toEqual(['Gaps']);
    await server.restart();
    await server.client.call(undo, { params: { project } });
    expect(await names(project)).toHaveLength(2);
    const { rows } = await server.client.call(getBatch, { params: { project, seq: 5 }, query: {} });
    expect(rows).toMatchObject([{ entity: 'savedView', did: 'changed' }]);
  });

  it('are refused with the place of what is wrong', async () => {
    const { project } = await makeProject(server.client, 'Wrong pond');
    const keep = (sort: string, body: Record<string, unknown>) => server.client.call(keepView, { params: { project }, body: { sort, name: 'x', body } });
    await expect(keep('matrix', { show: 'some' })).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('body.show') });
    await expect(keep('clouds', {})).rejects.toMatchObject({
      message: `There are no views of the sort "clouds"; there are ${savedViewSorts.map(({ sort }) => sort).join(', ')}.`,
    });
    await expect(keep('matrix', {}).then(() => keep('bench', {}))).resolves.toBeTruthy();
    const [one, two] = [await server.client.call(keepView, { params: { project }, body: { sort: 'matrix', name: 'one', body: {} } }), 'x'];
    await expect(server.client.call(renameView, { params: { project, view: one.id }, body: { name: two } })).rejects.toMatchObject({ code: 'input-invalid' });
  });

  it('of a sort that is added are read in every form it had, by one file and one line', () => {
    const silt: SavedViewSort<{ millimetres: number }> = {
      sort: 'silt',
      label: 'Silt',
      path: 'check/silt',
      schema: z.object({ millimetres: z.number() }),
      upgrades: [({ centimetres }) => ({ millimetres: Number(centimetres) * 10 })],
    };
    const among = [...savedViewSorts, silt];
    expect(readSavedBody({ sort: 'silt', version: 1, body: { centimetres: 3 } }, among)).toEqual({ millimetres: 30 });
    expect(readSavedBody({ sort: 'silt', version: 2, body: { millimetres: 4 } }, among)).toEqual({ millimetres: 4 });
    expect(readSavedBody({ sort: 'silt', version: 3, body: {} }, among)).toBeUndefined();
    expect(readSavedBody({ sort: 'silt', version: 2, body: {} })).toBeUndefined();
  });
});
