import { createReport, editItem, getHistory, getItem, getReport, listChanges, listPersons, renamePerson, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

describe('persons', () => {
  const server = useServer();
  const find = async (name: string) => (await server.client.call(listPersons, {})).find((person) => person.name === name)!;

  it('come to be by what they do, each once, with initials and a colour of their own; looking makes nobody', async () => {
    const ben = server.as('Ben Hale');
    const { project, requirements } = await makeProject(server.client);
    await Promise.all([
      addItem(ben, project, requirements, 'One'),
      addItem(ben, project, requirements, 'Two'),
      addItem(server.as('ben hale'), project, requirements, 'Three'),
    ]);
    await server.as('Only looking').call(listChanges, { params: { project }, query: {} });
    const persons = await server.client.call(listPersons, {});
    expect(persons.map(({ name, initials }) => [name, initials])).toEqual([
      ['Ada Wick', 'AW'],
      ['Ben Hale', 'BH'],
    ]);
    expect(persons[0]!.colour).not.toBe(persons[1]!.colour);
  });

  it('go by another name in all that was recorded of them, also after a restart; undo still finds what they did', async () => {
    const ida = server.as('Ida Fell');
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(ida, project, requirements, 'One');
    await ida.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, title: 'First' } });
    const report = await ida.call(createReport, { params: { project }, body: { title: 'Status' } });
    const { id } = await find('Ida Fell');
    await server.client.call(renamePerson, { params: { person: id }, body: { name: 'Ida Marsh' } });
    for (const restarted of [false, true]) {
      if (restarted) await server.restart();
      const history = await server.client.call(getHistory, { params: { project, item: item.id } });
      expect(history.map(({ person }) => person)).toEqual(['Ida Marsh', 'Ida Marsh']);
      expect((await server.client.call(getItem, { params: { project, item: item.id } })).changedBy).toBe('Ida Marsh');
      expect((await server.client.call(getReport, { params: { project, report: report.id } })).person).toBe('Ida Marsh');
      expect((await find('Ida Marsh')).initials).toBe('IM');
    }
    expect((await server.as('Ida Marsh').call(undo, { params: { project } })).action).toContain('report');
    // The old name belongs to nobody now: whoever comes with it is somebody else.
    await addItem(server.as('Ida Fell'), project, requirements, 'Two');
    expect((await find('Ida Fell')).id).not.toBe(id);
  });

  it('cannot take the name of somebody else', async () => {
    const { project, requirements } = await makeProject(server.client);
    await addItem(server.as('Tom Reed'), project, requirements, 'One');
    const { id } = await find('Tom Reed');
    await expect(server.client.call(renamePerson, { params: { person: id }, body: { name: 'ada wick' } })).rejects.toMatchObject({ code: 'input-invalid' });
    expect((await server.client.call(renamePerson, { params: { person: id }, body: { name: 'TOM Reed' } })).name).toBe('TOM Reed');
  });
});
