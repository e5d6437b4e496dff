import { addFields, type BodyOf, editItem, getBatch, getItem, getProject, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

type Wanted = NonNullable<BodyOf<typeof addFields>>['fields'];

describe('fields that people add', () => {
  const server = useServer();
  const add = async (project: string, ...fields: Wanted) => (await server.client.call(addFields, { params: { project }, body: { fields } })).fields;
  const fieldsOf = async (project: string, kind: string) =>
    (await server.client.call(getProject, { params: { project } })).scheme.kinds.find((one) => one.id === kind)!.fields.map((field) => field.label);

  it('stand at the end of their kinds, with ids of their own, over a restart', async () => {
    const { project } = await makeProject(server.client);
    const made = await add(
      project,
      { kind: 'requirement', label: 'Safety class', type: 'choice', options: ['A', 'B'] },
      { kind: 'need', label: 'Safety class', type: 'choice', options: ['A', 'B'] },
      { kind: 'requirement', label: 'Übergabe 2', type: 'text' },
    );
    expect(made.map((field) => field.id)).toEqual(['safetyClass', 'safetyClass', 'ubergabe2']);
    await server.restart();
    expect((await fieldsOf(project, 'requirement')).slice(-2)).toEqual(['Safety class', 'Übergabe 2']);
    expect((await fieldsOf(project, 'need')).at(-1)).toBe('Safety class');
    expect(await fieldsOf(project, 'testCase')).not.toContain('Safety class');
  });

  it('hold values like any other, and keep them when the field is taken back and made again', async () => {
    const { project, requirements } = await makeProject(server.client);
    const [field] = await add(project, { kind: 'requirement', label: 'Load', type: 'number', unit: 'kN' });
    const item = await addItem(server.client, project, requirements, 'Gate');
    await server.client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, fields: { [field!.id]: 40 } } });
    expect((await server.client.call(getItem, { params: { project, item: item.id } })).fields).toMatchObject({ load: 40 });
  });

  it('are one step that one undo takes back, named in the history', async () => {
    const { project } = await makeProject(server.client);
    const before = await fieldsOf(project, 'requirement');
    await add(project, { kind: 'requirement', label: 'A', type: 'text' }, { kind: 'requirement', label: 'B', type: 'date' });
    const { seq } = await server.client.call(getProject, { params: { project } });
    const { batch, rows } = await server.client.call(getBatch, { params: { project, seq } });
    expect([batch.action, rows.map((row) => [row.did, row.entity, row.name])]).toEqual([
      'Add 2 fields',
      [
        ['made', 'schemePart', 'A'],
        ['made', 'schemePart', 'B'],
      ],
    ]);
    await server.client.call(undo, { params: { project } });
    expect(await fieldsOf(project, 'requirement')).toEqual(before);
  });

  it('are not made twice, and not under a name that another type has', async () => {
    const { project } = await makeProject(server.client);
    const { seq } = await server.client.call(getProject, { params: { project } });
    expect(await add(project, { kind: 'requirement', label: 'priority', type: 'choice' })).toMatchObject([{ id: 'priority' }]);
    expect((await server.client.call(getProject, { params: { project } })).seq).toBe(seq);
    await expect(add(project, { kind: 'requirement', label: 'Priority', type: 'date' })).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(add(project, { kind: 'requirement', label: 'X', type: 'text' }, { kind: 'requirement', label: 'x', type: 'date' })).rejects.toMatchObject({
      code: 'input-invalid',
    });
    await expect(add(project, { kind: 'riddle', label: 'X', type: 'text' })).rejects.toMatchObject({ message: expect.stringContaining('riddle') });
  });

  it('take values of an import', async () => {
    const { project } = await makeProject(server.client);
    const [field] = await add(project, { kind: 'requirement', label: 'Owner at supplier', type: 'text' });
    await importThrough(server.client, project, 'list.csv', Buffer.from('ID,Title,Contact\nX-1,One,Ida Fell'), {
      collection: { name: 'List', prefix: 'X', holds: 'specification' },
      sheetRecipe: {
        name: 'r',
        sheet: 'list',
        headerRow: 0,
        kind: 'requirement',
        columns: [
          { name: 'ID', meaning: { as: 'reference' } },
          { name: 'Title', meaning: { as: 'title' } },
          { name: 'Contact', meaning: { as: 'field', field: field!.id } },
        ],
      },
    });
    expect((await server.client.call(getItem, { params: { project, item: 'X-1' } })).fields).toEqual({ ownerAtSupplier: 'Ida Fell' });
  });
});
