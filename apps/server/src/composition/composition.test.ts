import { createLinks, createProject, getDrawing, getOutline, growTrace, keepDrawing, listUses, listWholes, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { useServer } from '../testing/test-server.js';

const part = (id: string, name: string, type: string) =>
  `<ownedAttribute xmi:type="uml:Property" xmi:id="${id}" name="${name}" aggregation="composite" type="${type}"/>`;
const block = (id: string, name: string, inside = '') => `<packagedElement xmi:type="uml:Class" xmi:id="${id}" name="${name}">${inside}</packagedElement>`;
const model = Buffer.from(
  `<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20161101" xmlns:sysml="http://www.omg.org/spec/SysML/20181001/SysML"><uml:Model xmi:id="m" name="Plant">${block('site', 'Site', part('e', 'east', 'gate') + part('w', 'west', 'gate'))}${block('gate', 'Gate', part('l', 'lift', 'drive') + part('i', 'inner', 'gate'))}${block('drive', 'Drive', '<ownedAttribute xmi:type="uml:Property" xmi:id="t" name="travel"/>')}</uml:Model>${['site', 'gate', 'drive'].map((id) => `<sysml:Block xmi:id="b${id}" base_Class="${id}"/>`).join('')}</xmi:XMI>`,
);

describe('the composition of a system', () => {
  const server = useServer();
  async function scene() {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Plant' } });
    await importThrough(client, project, 'plant.xmi', model, { collection: { name: 'Plant', prefix: 'PL', holds: 'model' } });
    await importThrough(client, project, 'wishes.csv', Buffer.from('Reference,Title,Kind\nREQ-1,Travel,Requirement\nREQ-2,Load,Requirement\n'), {
      collection: { name: 'Wishes', prefix: 'REQ', holds: 'specification' },
    });
    const outline = await client.call(getOutline, { params: { project } });
    const idOf = (title: string) => outline.id[outline.title.indexOf(title)]!;
    const { wholes } = await client.call(listWholes, { params: { project } });
    const uses = async (path: readonly string[]) => (await client.call(listUses, { params: { project }, query: { path: path.join(',') } })).uses;
    const walk = async (...names: string[]) => {
      let path: readonly string[] = [idOf('Site')];
      for (const name of names) path = (await uses(path)).find(({ item }) => item.title === name)!.path;
      return path;
    };
    return { client, project, idOf, wholes, uses, walk };
  }

  it('begins with what nothing else is made of, and tells what contains itself', async () => {
    const { wholes, uses } = await scene();
    expect(wholes.map(({ item, used, rows, repeats }) => [item.title, used, rows, repeats])).toEqual([
      ['Site', false, 2, true],
      ['Gate', true, 2, true],
      ['Drive', true, 1, false],
    ]);
    const [east] = await uses(wholes[0]!.path);
    expect([east!.item.title, east!.type!.title, east!.rows]).toEqual(['east', 'Gate', 2]);
    const inner = (await uses(east!.path)).find(({ item }) => item.title === 'inner')!;
    expect([inner.repeats, inner.rows, inner.below]).toEqual([true, 0, 0]);
  });

  it('tells links of this use, of every use and of other uses apart, also for values', async () => {
    const { client, project, idOf, uses, walk } = await scene();
    const travel = await walk('east', 'lift', 'travel');
    expect(travel.at(-1)).toBe(idOf('travel'));
    await client.call(createLinks, {
      params: { project },
      body: {
        links: [
          { linkKind: 'satisfies', from: travel.at(-1)!, to: idOf('Travel'), fromUsage: [...travel] },
          { linkKind: 'satisfies', from: idOf('Drive'), to: idOf('Load') },
        ],
      },
    });
    const counts = async (...names: string[]) => {
      const above = await walk(...names.slice(0, -1));
      const { here, everywhere, elsewhere } = (await uses(above)).find(({ item }) => item.title === names.at(-1))!;
      return [here, everywhere, elsewhere];
    };
    expect(await counts('east', 'lift', 'travel')).toEqual([1, 0, 0]);
    expect(await counts('west', 'lift', 'travel')).toEqual([0, 0, 1]);
    expect(await counts('west', 'lift')).toEqual([0, 1, 0]);
    await client.call(undo, { params: { project } });
    expect(await counts('east', 'lift', 'travel')).toEqual([0, 0, 0]);
  });

  it('refuses paths that lead nowhere, with what is wrong', async () => {
    const { client, project, idOf } = await scene();
    const ask = (path: string) => client.call(listUses, { params: { project }, query: { path } });
    await expect(ask(`${idOf('Site')},${idOf('Drive')}`)).rejects.toThrow('is no part of');
    await expect(ask('')).rejects.toThrow('Say the path');
    await expect(ask('00000000-0000-4000-8000-000000000000')).rejects.toThrow('not there any more');
  });

  it('tells what is derived from what is inside from what is given, in a trace tree and the drawing that is kept of it', async () => {
    const { client, project, idOf } = await scene();
    const satisfies = (from: string, to: string) => ({ linkKind: 'satisfies', from: idOf(from), to: idOf(to) });
    await client.call(createLinks, {
      params: { project },
      body: { links: [satisfies('travel', 'Travel'), satisfies('travel', 'Load'), satisfies('Drive', 'Load')] },
    });
    const upstream = async (derived: boolean) =>
      (await client.call(growTrace, { params: { project }, body: { item: idOf('Drive'), kinds: ['satisfies'], up: 1, down: 0, derived } })).upstream
        .slice(1)
        .map(({ item, through }) => [item.title, through]);
    expect(await upstream(false)).toEqual([['Load', null]]);
    expect(await upstream(true)).toEqual([
      ['Load', null],
      ['Travel', ['travel']],
    ]);
    const definition = { sort: 'trace' as const, about: idOf('Drive'), levels: 0, up: 1, detail: [], derived: true };
    const { drawing } = await client.call(keepDrawing, { params: { project }, body: { name: 'Trace', definition, hand: {} } });
    const kept = await client.call(getDrawing, { params: { project, drawing } });
    expect(kept.made!.definition.derived).toBe(true);
    const label = (title: string) => kept.routes.find((route) => kept.shapes[route.to]!.name === title)!;
    expect([label('Travel').dashed, label('Load').dashed]).toEqual([true, false]);
    expect(label('Travel').label).toContain('travel');
  });

  it('leads on in a trace tree, to either side, along the kinds that are asked for', async () => {
    const { client, project, idOf } = await scene();
    await client.call(createLinks, {
      params: { project },
      body: {
        links: [
          { linkKind: 'satisfies', from: idOf('Drive'), to: idOf('Load') },
          { linkKind: 'derives', from: idOf('Load'), to: idOf('Travel') },
        ],
      },
    });
    const grow = async (body: object) => {
      const { upstream, downstream } = await client.call(growTrace, { params: { project }, body: { item: 'REQ-2', ...body } });
      return [upstream, downstream].map((side) => side.slice(1).map(({ item, phrase, hidden }) => [item.title, phrase, hidden]));
    };
    expect(await grow({ up: 1, down: 1 })).toEqual([[['Travel', 'is derived from', 0]], [['Drive', 'is satisfied by', 1]]]);
    expect(await grow({ up: 1, down: 2 })).toEqual([
      [['Travel', 'is derived from', 0]],
      [
        ['Drive', 'is satisfied by', 0],
        ['lift', 'is used as', 0],
      ],
    ]);
    expect(await grow({ kinds: ['derives'] })).toEqual([[['Travel', 'is derived from', 0]], []]);
    await expect(grow({ item: 'NONE-1' })).rejects.toThrow();
  });
});
