import { addMember, addRelated, createItem, createLinks, editLink, getBoundary, getItem, listChanges, makeContext, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { makeProject, useServer } from '../testing/test-server.js';

/** A weir and a grid; the context is made of both. */
describe('the boundary of a system', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const { project, design } = await makeProject(client);
    const make = (kind: string, title: string, parent: string | null = null) =>
      client.call(createItem, { params: { project }, body: { collection: design, kind, title, parent } });
    const weir = await make('component', 'Weir');
    const grid = await make('component', 'Grid');
    return { client, project, make, weir, grid };
  }
  const read = (project: string, about?: string) => server.client.call(getBoundary, { params: { project }, query: about ? { about } : {} });

  it('is a context composed of the system and what is outside, made in one change and taken back in one', async () => {
    const { client, project, weir, grid } = await scene();
    expect((await read(project)).context).toBeNull();
    const { context } = await client.call(makeContext, { params: { project }, body: { title: 'Valley', systems: [weir.id, grid.id] } });
    const told = await read(project);
    expect(told.context!.id).toBe(context);
    expect(told.members.map(({ part, system }) => [part.title, part.kind, system.title])).toEqual([
      ['Weir', 'part', 'Weir'],
      ['Grid', 'part', 'Grid'],
    ]);
    const references = [told.context!.reference, ...told.members.map(({ part }) => part.reference)];
    expect(new Set(references).size).toBe(3);
    expect(told.missing).toEqual({ functions: 2, performers: 0 });
    await client.call(undo, { params: { project } });
    expect((await read(project)).context).toBeNull();
  });

  it('takes in what is there, or what is made for it', async () => {
    const { client, project, weir, grid } = await scene();
    const { context } = await client.call(makeContext, { params: { project }, body: { title: 'Valley', systems: [weir.id] } });
    await client.call(addMember, { params: { project, context }, body: { system: grid.id } });
    await client.call(addMember, { params: { project, context }, body: { title: 'Flood authority' } });
    const { members } = await read(project, context);
    expect(members.map(({ system }) => system.title)).toEqual(['Weir', 'Grid', 'Flood authority']);
    const all = members.flatMap(({ part, system }) => [part.reference, system.reference]);
    expect(new Set(all).size).toBe(6);
    const [last] = await client.call(listChanges, { params: { project }, query: {} });
    expect(last!.action).toContain('to the context');
  });

  it('says what is missing, and less when it is mended: a function for each, a performer for each function, with fields of its own', async () => {
    const { client, project, make, weir, grid } = await scene();
    const { context } = await client.call(makeContext, { params: { project }, body: { title: 'Valley', systems: [weir.id, grid.id] } });
    const made = await client.call(addRelated, {
      params: { project, item: weir.id },
      body: { title: 'Hold the level', kind: 'function', linkKind: 'allocated', reversed: true, collection: weir.collection },
    });
    const measure = await make('function', 'Measure', made.item);
    const before = await read(project, context);
    expect(before.members.map(({ functions }) => functions.map(({ other }) => other.title))).toEqual([['Hold the level'], []]);
    expect(before.functions.map(({ item, depth, performers }) => [item.title, depth, performers.map(({ other }) => other.title)])).toEqual([
      ['Hold the level', 0, ['Weir']],
      ['Measure', 1, []],
    ]);
    expect(before.missing).toEqual({ functions: 1, performers: 1 });
    await client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'allocated', from: measure.id, to: grid.id }] } });
    const after = await read(project, context);
    expect(after.missing).toEqual({ functions: 0, performers: 0 });
    const [allocation] = after.functions[1]!.performers;
    await client.call(editLink, { params: { project, link: allocation!.link }, body: { revision: allocation!.revision, fields: { basis: 'Agreed in May' } } });
    expect((await read(project, context)).functions[1]!.performers[0]!.fields).toEqual({ basis: 'Agreed in May' });
    const sheet = await client.call(getItem, { params: { project, item: made.item } });
    expect([...sheet.upstream, ...sheet.downstream].map(({ phrase, other }) => `${phrase} ${other.title}`)).toEqual(['is allocated to Weir']);
    // Undone with one step each: the field, the link, the item below it, then the function with its link.
    for (let step = 0; step < 4; step++) await client.call(undo, { params: { project } });
    expect((await read(project, context)).functions).toEqual([]);
  });

  it('refuses what may not be linked so', async () => {
    const { client, project, weir } = await scene();
    const wish = { title: 'X', kind: 'testCase', linkKind: 'allocated', reversed: true, collection: weir.collection };
    await expect(client.call(addRelated, { params: { project, item: weir.id }, body: wish })).rejects.toMatchObject({ code: 'link-not-allowed' });
    await expect(client.call(addRelated, { params: { project, item: weir.id }, body: { ...wish, linkKind: 'none' } })).rejects.toMatchObject({
      code: 'input-invalid',
    });
  });
});
