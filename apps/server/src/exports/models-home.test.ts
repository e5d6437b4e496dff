import {
  type BodyOf,
  buildUrl,
  compareFile,
  createItem,
  createLinks,
  createProject,
  editItem,
  exportCollection,
  getDrawing,
  getItem,
  getOutline,
  type importFile,
  listDrawings,
  listSources,
  removeLinks,
  tryExport,
  uploadFile,
  withdrawItems,
} from '@coomb/contract';
import { readFileContent, readXmi } from '@coomb/formats';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { useServer } from '../testing/test-server.js';

const demo = (name: string) => readFileSync(join(process.cwd(), 'demo', 'files', name));

describe('a model', () => {
  const server = useServer();
  async function bring(name: string, more: Partial<NonNullable<BodyOf<typeof importFile>>> = {}) {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name } });
    const outcome = await importThrough(client, project, name, demo(name), { collection: { name: 'Model', prefix: 'M', holds: 'model' }, ...more });
    return { client, project, collection: outcome.collection! };
  }
  const fetchModel = async (project: string, collection: string, format: 'model' | 'xmi' = 'model') => {
    const response = await fetch(server.address + buildUrl(exportCollection.path, { project, collection, format }));
    if (!response.ok) throw new Error(await response.text());
    return Buffer.from(await response.arrayBuffer());
  };
  const byTitle = async (project: string, title: string) => {
    const outline = await server.client.call(getOutline, { params: { project } });
    return server.client.call(getItem, { params: { project, item: outline.id[outline.title.indexOf(title)]! } });
  };

  it.each(['3 Larkbeck model.xmi', '10 Drive of the supplier.xmi', '11 Lock passage.bpmn', '12 Warning stages.dmn', '13 Gate drive signals.ssd'])(
    'goes out byte for byte where nothing was changed: %s',
    async (name) => {
      const { client, project, collection } = await bring(name);
      expect((await fetchModel(project, collection)).equals(demo(name))).toBe(true);
      const back = await client.call(tryExport, { params: { project, format: 'model' }, body: { collection } });
      expect(back.items.back).toBe(back.items.out);
      expect(back.links.back).toBe(back.links.out);
      expect(back.differences.map(({ what }) => what)).toEqual([]);
    },
  );

  it('goes home with exactly what was changed here', async () => {
    const { client, project, collection } = await bring('10 Drive of the supplier.xmi');
    const before = (await readXmi(demo('10 Drive of the supplier.xmi'))).model;
    const [motor, travel, brake, hold] = await Promise.all(['Motor', 'Travel', 'Spring brake', 'Hold'].map((title) => byTitle(project, title)));
    await client.call(editItem, {
      params: { project, item: motor!.id },
      body: { revision: 1, title: 'Drive motor', html: '<p>Four poles.</p><p>Enclosed.</p>' },
    });
    await client.call(editItem, {
      params: { project, item: travel!.id },
      body: { revision: 1, html: '<p>The drive shall move the gate by up to 3.60 m.</p>' },
    });
    await client.call(removeLinks, { params: { project }, body: { links: [brake!.upstream.find((link) => link.other.id === hold!.id)!.id] } });
    await client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'satisfies', from: brake!.id, to: travel!.id }] } });
    await client.call(withdrawItems, { params: { project }, body: { items: [(await byTitle(project, 'Torque switch')).id] } });
    const made = await client.call(createItem, {
      params: { project },
      body: { collection, parent: motor!.path.at(-1)!.id, title: 'Hand crank', kind: 'component', html: '<p>For when all else fails.</p>' },
    });
    const { model, issues } = await readXmi(await fetchModel(project, collection));
    expect(issues.filter(({ severity }) => severity !== 'note')).toEqual([]);
    const gist = (elements: typeof model.elements) =>
      new Map(
        elements.filter(({ type }) => type !== 'Comment').map(({ id, name, text, stereotypes, reference }) => [id, { name, text, stereotypes, reference }]),
      );
    const expected = gist(before.elements);
    const find = (name: string) => [...expected].find(([, one]) => one.name === name)!;
    Object.assign(find('Motor')[1], { name: 'Drive motor', text: 'Four poles.\nEnclosed.' });
    Object.assign(find('Travel')[1], { text: 'The drive shall move the gate by up to 3.60 m.' });
    expected.delete(find('Torque switch')[0]);
    expected.set(`coomb-${made.id}`, { name: 'Hand crank', text: 'For when all else fails.', stereotypes: ['Block'], reference: null });
    expect(gist(model.elements)).toEqual(expected);
    const names = new Map(model.elements.map(({ id, name }) => [id, name]));
    const links = model.relations.map(({ from, to, stereotypes }) => `${from.map((id) => names.get(id))} ${stereotypes} ${to.map((id) => names.get(id))}`);
    expect(links.toSorted()).toEqual(['Drive motor Satisfy Load', 'Spindle unit Satisfy Travel', 'Spring brake Satisfy Travel']);
    expect(model.drawings[0]!.shapes.map(({ element }) => names.get(element))).toEqual([
      'Travel',
      'Load',
      'Hold',
      'Cut off',
      'Spindle unit',
      'Drive motor',
      'Spring brake',
    ]);
  });

  it('says what a part is a use of, where that was said or changed here', async () => {
    const { client, project, collection } = await bring('3 Larkbeck model.xmi');
    const before = (await readXmi(demo('3 Larkbeck model.xmi'))).model;
    const nameOf = (model: typeof before, id: string | null) => model.elements.find((one) => one.id === id)?.name;
    const outline = await client.call(getOutline, { params: { project } });
    const at = outline.kind.findIndex((kind, row) => outline.kinds[kind] === 'part' && outline.kinds[outline.kind[row]!] === 'part');
    const part = await client.call(getItem, { params: { project, item: outline.id[at]! } });
    const typed = [...part.upstream, ...part.downstream].find((link) => link.linkKind === 'typed')!;
    const owner = part.path.at(-1)!.id;
    const other =
      outline.id[outline.kind.findIndex((kind, row) => outline.kinds[kind] === 'component' && ![typed.other.id, owner].includes(outline.id[row]!))]!;
    await client.call(removeLinks, { params: { project }, body: { links: [typed.id] } });
    await client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'typed', from: part.id, to: other }] } });
    const made = await client.call(createItem, { params: { project }, body: { collection, parent: owner, title: 'stand-by', kind: 'part' } });
    await client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'typed', from: made.id, to: other }] } });
    const { model } = await readXmi(await fetchModel(project, collection));
    const title = outline.title[outline.id.indexOf(other)]!;
    const types = (one: typeof before) => new Map(one.elements.map(({ id, typedBy }) => [id, nameOf(one, typedBy)]));
    const expected = types(before)
      .set(before.elements.find(({ name, role }) => name === part.title && role === 'part')!.id, title)
      .set(`coomb-${made.id}`, title);
    expect(types(model)).toEqual(expected);
  });

  it.each([
    ['11 Lock passage.bpmn', 'function', 'goesOn'],
    ['12 Warning stages.dmn', 'function', 'depends'],
  ])('takes home what was made and withdrawn here: %s', async (name, kind, linkKind) => {
    const { client, project, collection } = await bring(name);
    const outline = await client.call(getOutline, { params: { project } });
    const rows = outline.kind.flatMap((one, row) => (outline.kinds[one] === kind && outline.node[row] !== undefined ? [row] : []));
    const links = await Promise.all(rows.map(async (row) => ({ row, item: await client.call(getItem, { params: { project, item: outline.id[row]! } }) })));
    // Something that has a neighbour, and is nobody's home.
    const [first, gone] = links.filter(({ item, row }) => item.upstream.length + item.downstream.length > 0 && !outline.parent.includes(row));
    const parent = first!.item.path.at(-1)?.id ?? null;
    const made = await client.call(createItem, {
      params: { project },
      body: { collection, parent, title: 'Look along the bank', kind, html: '<p>Both sides.</p>' },
    });
    await client.call(createLinks, { params: { project }, body: { links: [{ linkKind, from: first!.item.id, to: made.id }] } });
    await client.call(withdrawItems, { params: { project }, body: { items: [gone!.item.id] } });
    const back = await client.call(tryExport, { params: { project, format: 'model' }, body: { collection } });
    expect(back.differences).toEqual([]);
    expect(back).toMatchObject({ items: { out: back.items.back }, links: { out: back.links.back } });
    const { content } = await readFileContent(name, await fetchModel(project, collection));
    const titles = content.type === 'model' ? content.model.elements.map((one) => one.name) : [];
    expect(titles).toContain('Look along the bank');
    expect(titles).not.toContain(gone!.item.title);
  });

  it('takes home new names and what was made here, where names are what things are known by', async () => {
    const { client, project, collection } = await bring('13 Gate drive signals.ssd');
    const outline = await client.call(getOutline, { params: { project } });
    const rows = outline.id.flatMap((_, row) => (outline.kinds[outline.kind[row]!] === 'component' && outline.parent[row]! >= 0 ? [row] : []));
    const [renamed, withdrawn] = rows.map((row) => outline.id[row]!);
    const item = await client.call(getItem, { params: { project, item: renamed! } });
    await client.call(editItem, { params: { project, item: renamed! }, body: { revision: 1, title: `${item.title} two` } });
    await client.call(withdrawItems, { params: { project }, body: { items: [withdrawn!] } });
    const body = { collection, parent: item.path.at(-1)!.id, title: 'Hand crank', kind: 'component' };
    await client.call(createItem, { params: { project }, body });
    const back = await client.call(tryExport, { params: { project, format: 'model' }, body: { collection } });
    expect(back.differences).toEqual([]);
    expect(back.items.back).toBe(back.items.out);
  });

  it('is made anew of requirements that came from a document, which a modelling tool can take', async () => {
    const { client, project, collection } = await bring('9 Control software requirements.xlsx', {
      collection: { name: 'Software', prefix: 'SW', holds: 'specification' },
    });
    const back = await client.call(tryExport, { params: { project, format: 'xmi' }, body: { collection } });
    expect(back.differences.filter(({ isMarkup }) => !isMarkup)).toEqual([]);
    expect(back.items).toEqual({ out: back.items.out, back: back.items.out });
    const outline = await client.call(getOutline, { params: { project } });
    const other = await client.call(createProject, { body: { name: 'The modelling side' } });
    const written = await fetchModel(project, collection, 'xmi');
    await importThrough(client, other.id, 'Software.xmi', written, { collection: { name: 'Software', prefix: 'X', holds: 'model' } });
    const there = await client.call(getOutline, { params: { project: other.id } });
    const told = ({ reference, title, heading }: typeof outline) => reference.flatMap((one, row) => (heading[row] ? [] : [`${one} ${title[row]}`])).toSorted();
    expect(told(there)).toEqual(told(outline));
  });

  it('goes from tool to tool and comes home with exactly what was changed on the way', async () => {
    const { client, project, collection } = await bring('10 Drive of the supplier.xmi');
    const motor = await byTitle(project, 'Motor');
    await client.call(editItem, { params: { project, item: motor.id }, body: { revision: 1, title: 'Drive motor' } });
    const standard = await fetchModel(project, collection, 'xmi');
    expect(standard.toString()).toContain('xmlns:uml="http://www.omg.org/spec/UML/20161101"');
    const back = await client.call(tryExport, { params: { project, format: 'xmi' }, body: { collection } });
    expect(back).toMatchObject({ differences: [], items: { out: back.items.back }, links: { out: back.links.back } });
    // The other tool renames one thing and moves one shape.
    const changed = standard.toString().replace('name="Spring brake"', 'name="Holding brake"');
    expect(changed).not.toBe(standard.toString());
    const [source] = await client.call(listSources, { params: { project } });
    const form = new FormData();
    form.append('file', new Blob([changed]), 'from the other tool.xmi');
    const response = await fetch(server.address + buildUrl(uploadFile.path, { project }), { method: 'POST', body: form });
    const { id: tray } = (await response.json()) as { id: string };
    const comparison = await client.call(compareFile, { params: { project, tray }, body: { source: source!.id, other: true, pairs: [] } });
    expect(comparison.entries.filter(({ sort }) => sort !== 'same').map(({ mine, fields }) => [mine!.title, fields.map(({ field }) => field)])).toEqual([
      ['Spring brake', ['title']],
    ]);
    await importThrough(client, project, 'from the other tool.xmi', Buffer.from(changed), {
      again: {
        source: source!.id,
        other: true,
        seq: comparison.seq,
        pairs: [],
        choices: { [comparison.entries.find(({ sort }) => sort !== 'same')!.id]: 'theirs' },
      },
    });
    expect((await byTitle(project, 'Holding brake')).reference).toBe(
      (await client.call(getItem, { params: { project, item: comparison.entries.find(({ sort }) => sort !== 'same')!.mine!.id } })).reference,
    );
  });

  it('comes again with its drawings, compared by element', async () => {
    const { client, project } = await bring('10 Drive of the supplier.xmi');
    const [source] = await client.call(listSources, { params: { project } });
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(demo('next/10 Drive of the supplier, issue 2.xmi'))]), 'issue 2.xmi');
    const response = await fetch(server.address + buildUrl(uploadFile.path, { project }), { method: 'POST', body: form });
    const { id: tray } = (await response.json()) as { id: string };
    const comparison = await client.call(compareFile, { params: { project, tray }, body: { source: source!.id, pairs: [] } });
    expect(comparison.counts).toMatchObject({ new: 1, removed: 0, moved: 0, conflicts: 0 });
    const changed = comparison.entries
      .filter(({ sort }) => sort === 'changed')
      .map(({ mine, fields, linksAdded }) => [mine!.title, fields.map(({ field }) => field), linksAdded.length]);
    expect(changed).toEqual([
      ['Travel', ['text'], 0],
      ['Motor', [], 1],
      ['Torque switch', ['title'], 0],
    ]);
    const [shown] = comparison.drawings;
    expect(comparison.drawings).toHaveLength(1);
    expect(shown!.changes.filter(({ what }) => what === 'shape').map(({ sort, name }) => [sort, name])).toEqual([
      ['changed', 'Travel'],
      ['came', 'Temperature'],
      ['moved', 'Motor'],
      ['changed', 'Torque sensor'],
    ]);
    expect(shown!.changes.filter(({ what, sort }) => what === 'line' && sort === 'came').map(({ name }) => name)).toEqual(['«satisfy»']);
    await importThrough(client, project, 'issue 2.xmi', demo('next/10 Drive of the supplier, issue 2.xmi'), {
      again: { source: source!.id, seq: comparison.seq, pairs: [], choices: {} },
    });
    const [drawing] = await client.call(listDrawings, { params: { project } });
    const { shapes } = await client.call(getDrawing, { params: { project, drawing: drawing!.id } });
    expect(shapes.map(({ name }) => name)).toContain('Torque sensor');
    expect(shapes).toHaveLength(9);
  });
});

describe('where things are drawn', () => {
  const server = useServer();
  it('is told of items, with the shapes that show them, under the name of today', async () => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Drawn' } });
    await importThrough(client, project, '3 Larkbeck model.xmi', demo('3 Larkbeck model.xmi'), { collection: { name: 'Model', prefix: 'M', holds: 'model' } });
    const outline = await client.call(getOutline, { params: { project } });
    const drive = await client.call(getItem, { params: { project, item: outline.id[outline.title.indexOf('Gate Drive')]! } });
    expect(drive.drawnIn.map(({ name }) => name).toSorted()).toEqual(['Gate drive in its sites', 'Inside the gate drive']);
    expect(drive.details.map(({ sort, text }) => [sort, text])).toEqual([]);
    await client.call(editItem, { params: { project, item: drive.id }, body: { revision: 1, title: 'Spindle drive' } });
    const shown = drive.drawnIn.find(({ name }) => name === 'Inside the gate drive')!;
    const drawing = await client.call(getDrawing, { params: { project, drawing: shown.item! } });
    expect(drawing.id).toBe(shown.drawing);
    expect(drawing.shapes[shown.shapes[0]!]).toMatchObject({ name: 'Spindle drive', keyword: '«block»', item: drive.id });
    expect(drawing.shapes.find(({ element }) => element.endsWith('_motor'))!.name).toBe('motor: Drive Motor');
    expect(drawing.routes.map(({ label, from, to }) => [label, drawing.shapes[from]!.name, drawing.shapes[to]!.name])).toContainEqual([
      'shaft',
      'motor: Drive Motor',
      'brake: Holding Brake',
    ]);
  });
});
