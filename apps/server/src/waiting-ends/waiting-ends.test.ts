import {
  type BodyOf,
  buildUrl,
  createProject,
  endWaiting,
  exportCollection,
  getItem,
  getOutline,
  type importFile,
  joinWaitingEnd,
  listChanges,
  undo,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { useServer } from '../testing/test-server.js';

const wrap = (body: string) =>
  `<?xml version="1.0" encoding="UTF-8"?>
<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20131001">
<uml:Model xmi:id="root" name="m">${body}</uml:Model></xmi:XMI>`;

/** Has a part and a dependency that lead to "hydraulics.xmi". */
const gates = (
  more = '<packagedElement xmi:type="uml:Usage" xmi:id="needs" client="gate" supplier="sill"><supplier href="hydraulics.xmi#pump"/></packagedElement>',
) =>
  wrap(`<packagedElement xmi:type="uml:Component" xmi:id="gate" name="Gate">
<ownedAttribute xmi:type="uml:Property" xmi:id="unit" name="unit" aggregation="composite"><type href="hydraulics.xmi#pump"/></ownedAttribute></packagedElement>
<packagedElement xmi:type="uml:Component" xmi:id="sill" name="Sill"/>${more}`);
const hydraulics = (id = 'pump') => wrap(`<packagedElement xmi:type="uml:Component" xmi:id="${id}" name="Pump"/>`);

describe('an end in a file that comes later', () => {
  const server = useServer();

  const begin = async () => (await server.client.call(createProject, { body: { name: 'Parts' } })).id;
  const bring = (project: string, name: string, text: string, more: Partial<NonNullable<BodyOf<typeof importFile>>> = {}) =>
    importThrough(server.client, project, name, Buffer.from(text), { collection: { name, prefix: name.slice(0, 2).toUpperCase(), holds: 'model' }, ...more });
  const sheet = async (project: string, title: string) => {
    const outline = await server.client.call(getOutline, { params: { project } });
    return server.client.call(getItem, { params: { project, item: outline.id[outline.title.indexOf(title)]! } });
  };
  /** What an item is joined with, and what it waits for. */
  const says = async (project: string, title: string) => {
    const { upstream, downstream, waiting } = await sheet(project, title);
    return { links: [...upstream, ...downstream].map(({ phrase, other }) => `${phrase} ${other.title}`).sort(), waiting: waiting.map(({ target }) => target) };
  };

  it('waits, is told, and is joined when the file comes; undone, it waits again', async () => {
    const project = await begin();
    const first = await bring(project, 'gates.xmi', gates());
    expect(first.issues).toContainEqual(expect.objectContaining({ code: 'ends-wait', message: expect.stringContaining('2 links wait') }));
    expect(await says(project, 'Gate')).toEqual({ links: ['depends on Sill'], waiting: ['hydraulics.xmi#pump'] });
    expect((await says(project, 'unit')).waiting).toEqual(['hydraulics.xmi#pump']);
    const second = await bring(project, 'hydraulics.xmi', hydraulics());
    expect(second.issues).toContainEqual(expect.objectContaining({ code: 'ends-joined', message: '2 ends that waited for this file are joined' }));
    expect(second.links).toBe(2);
    expect(await says(project, 'Pump')).toEqual({ links: ['is needed by Gate', 'is used as unit'], waiting: [] });
    expect((await says(project, 'Gate')).waiting).toEqual([]);
    await server.client.call(undo, { params: { project } });
    expect(await says(project, 'Gate')).toEqual({ links: ['depends on Sill'], waiting: ['hydraulics.xmi#pump'] });
  });

  it('that was joined goes out as it came', async () => {
    const project = await begin();
    await bring(project, 'gates.xmi', gates());
    await bring(project, 'hydraulics.xmi', hydraulics());
    for (const [title, text] of [
      ['Gate', gates()],
      ['Pump', hydraulics()],
    ] as const) {
      const { collection } = await sheet(project, title);
      const out = await fetch(server.address + buildUrl(exportCollection.path, { project, collection, format: 'model' }));
      expect(await out.text()).toBe(text);
    }
  });

  it('is found at once where the other file stands here already', async () => {
    const project = await begin();
    await bring(project, 'hydraulics.xmi', hydraulics());
    await bring(project, 'gates.xmi', gates());
    expect(await says(project, 'Pump')).toEqual({ links: ['is needed by Gate', 'is used as unit'], waiting: [] });
  });

  it('is not joined with what is called so in another file, but with what was renamed and is like no other', async () => {
    const project = await begin();
    await bring(project, 'gates.xmi', gates());
    await bring(project, 'other.xmi', hydraulics());
    expect((await says(project, 'Gate')).waiting).toEqual(['hydraulics.xmi#pump']);
    const second = await begin();
    await bring(second, 'gates.xmi', gates().replaceAll('#pump', '#_pump_4a7710c2'));
    await bring(second, 'renamed by hand.xmi', hydraulics('_pump_4a7710c2'));
    expect((await says(second, 'Gate')).links).toEqual(['depends on Pump', 'depends on Sill']);
  });

  it('survives importing again, and ends where the newer version asks for it no more', async () => {
    const project = await begin();
    await bring(project, 'gates.xmi', gates());
    const again = async (text: string) => {
      const [batch] = await server.client.call(listChanges, { params: { project }, query: {} });
      const source = (await sheet(project, 'Gate')).source!.id;
      return bring(project, 'gates.xmi', text, { collection: undefined, again: { source, seq: batch!.seq } });
    };
    await again(gates().replace('name="Sill"', 'name="Sill of concrete"'));
    expect((await says(project, 'Gate')).waiting).toEqual(['hydraulics.xmi#pump']);
    await bring(project, 'hydraulics.xmi', hydraulics());
    await again(gates().replace('name="Sill"', 'name="Sill of stone"'));
    expect(await says(project, 'Gate')).toEqual({ links: ['depends on Pump', 'depends on Sill of stone'], waiting: [] });
    await again(gates('').replace('name="Sill"', 'name="Sill of stone"'));
    expect((await says(project, 'Gate')).links).toEqual([]);
    const other = await begin();
    await bring(other, 'gates.xmi', gates());
    const [batch] = await server.client.call(listChanges, { params: { project: other }, query: {} });
    await bring(other, 'gates.xmi', gates(''), { collection: undefined, again: { source: (await sheet(other, 'Gate')).source!.id, seq: batch!.seq } });
    expect((await says(other, 'Gate')).waiting).toEqual([]);
    expect((await says(other, 'unit')).waiting).toEqual(['hydraulics.xmi#pump']);
  });

  it('is joined by hand, or let go; what does not fit is refused and waits on', async () => {
    const project = await begin();
    await bring(project, 'gates.xmi', gates());
    await bring(project, 'other.xmi', hydraulics());
    const { waiting, id } = await sheet(project, 'Gate');
    const pump = await sheet(project, 'Pump');
    const join = (item: string) => server.client.call(joinWaitingEnd, { params: { project, end: waiting[0]!.id }, body: { item } });
    await expect(join(id)).rejects.toMatchObject({ code: 'link-not-allowed' });
    await join(pump.reference);
    expect(await says(project, 'Gate')).toEqual({ links: ['depends on Pump', 'depends on Sill'], waiting: [] });
    await expect(join(pump.reference)).rejects.toMatchObject({ code: 'not-found' });
    const unit = await sheet(project, 'unit');
    await server.client.call(endWaiting, { params: { project, end: unit.waiting[0]!.id } });
    expect((await says(project, 'unit')).waiting).toEqual([]);
    await server.client.call(undo, { params: { project } });
    expect((await says(project, 'unit')).waiting).toEqual(['hydraulics.xmi#pump']);
  });
});
