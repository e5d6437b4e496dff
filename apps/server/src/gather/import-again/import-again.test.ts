import {
  type BodyOf,
  compareFile,
  confirmLinks,
  createProject,
  editItem,
  getHistory,
  getJob,
  getItem,
  getOutline,
  getProject,
  importFile,
  listSources,
  moveItem,
  readCollection,
  redo,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../../cli/client.js';
import { addItem, addLink, useServer } from '../../testing/test-server.js';

const sheet = (...rows: string[]) => Buffer.from(['ID,Title,Text,Priority,Traces to,Parent', ...rows].join('\n'));
const first = [
  'SYS-1,Level,Hold the level within 5 cm.,High,NEED-1',
  'SYS-2,Siren,Sound a siren before moving.,Low,NEED-1',
  'SYS-3,Lamp,Light the walkway.,Low,',
  'SYS-4,Gate,Close the gate.,High,NEED-2',
];

describe('importing again', () => {
  const server = useServer();

  async function scene(rows: string[] = first) {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Again' } });
    await importThrough(client, project, 'needs.csv', Buffer.from('ID,Title\nNEED-1,Dry\nNEED-2,Safe'), {
      collection: { name: 'Needs', prefix: 'NEED', holds: 'specification' },
      sheetRecipe: {
        name: '',
        sheet: 'needs',
        headerRow: 0,
        kind: 'need',
        columns: [
          { name: 'ID', meaning: { as: 'reference' } },
          { name: 'Title', meaning: { as: 'title' } },
        ],
      },
    });
    await importThrough(client, project, 'spec.csv', sheet(...rows), { collection: { name: 'Specification', prefix: 'SYS', holds: 'specification' } });
    const source = (await client.call(listSources, { params: { project } })).find((one) => one.name === 'spec.csv')!;
    const item = (reference: string) => client.call(getItem, { params: { project, item: reference } });
    const edit = async (reference: string, change: Partial<BodyOf<typeof editItem>>) => {
      const { id, revision } = await item(reference);
      return client.call(editItem, { params: { project, item: id }, body: { revision, ...change } });
    };
    const handIn = (rows: string[]) => client.upload(project, 'spec 2.csv', sheet(...rows));
    const compare = async (tray: string, pairs: [number, string | null][] = []) =>
      client.call(compareFile, { params: { project, tray }, body: { source: source.id, pairs } });
    const take = async (tray: string, again: Partial<NonNullable<NonNullable<BodyOf<typeof importFile>>['again']>> = {}) => {
      const { seq } = await compare(tray, again.pairs as [number, string | null][]);
      const { job } = await client.call(importFile, { params: { project, tray }, body: { again: { source: source.id, seq, ...again } } });
      for (;;) {
        const now = await client.call(getJob, { params: { project, job } });
        if (now.state === 'done') return now.outcome!;
        if (now.state !== 'running') throw new Error(now.message);
        await new Promise((resolve) => setTimeout(resolve, 20));
      }
    };
    const order = async () => (await client.call(getOutline, { params: { project } })).reference.filter((reference) => reference.startsWith('SYS'));
    return { client, project, source, item, edit, handIn, compare, take, order };
  }

  it('finds nothing in the very same file, and importing it changes nothing', async () => {
    const { client, project, handIn, compare, take, item } = await scene();
    const { id } = await handIn(first);
    expect((await compare(id)).counts).toEqual({ new: 0, changed: 0, moved: 0, removed: 0, returned: 0, same: 4, conflicts: 0 });
    const { revision } = await item('SYS-1');
    await take(id);
    expect((await item('SYS-1')).revision).toBe(revision);
    expect((await client.call(getHistory, { params: { project, item: 'SYS-1' } })).length).toBe(1);
    expect((await client.call(listSources, { params: { project } })).filter((one) => one.name.startsWith('spec')).map((one) => one.items)).toEqual([4, 4]);
  });

  it('shows new, changed, moved and removed before anything is stored', async () => {
    const { handIn, compare, order } = await scene();
    const { id } = await handIn([first[3]!, first[0]!.replace('5 cm', '3 cm'), first[1]!, 'SYS-9,Log,Record all.,Low,']);
    const { counts, entries } = await compare(id);
    expect(counts).toMatchObject({ new: 1, changed: 1, moved: 1, removed: 1, same: 1, conflicts: 0 });
    expect(entries.map((entry) => [entry.sort, entry.mine?.reference ?? entry.theirs?.key])).toEqual([
      ['moved', 'SYS-4'],
      ['changed', 'SYS-1'],
      ['new', 'SYS-9'],
      ['removed', 'SYS-3'],
    ]);
    expect(entries[1]!.fields).toMatchObject([
      { field: 'text', label: 'Text', verdict: 'theirs', mine: expect.stringContaining('5 cm'), theirs: expect.stringContaining('3 cm') },
    ]);
    expect(await order()).toEqual(['SYS-1', 'SYS-2', 'SYS-3', 'SYS-4']);
  });

  it('takes all of it as one step that one undo takes back', async () => {
    const { client, project, handIn, take, item, order } = await scene();
    const before = await client.call(getOutline, { params: { project } });
    await take((await handIn([first[3]!, first[0]!.replace('5 cm', '3 cm'), first[1]!, 'SYS-9,Log,Record all.,Low,'])).id);
    expect(await order()).toEqual(['SYS-4', 'SYS-1', 'SYS-2', 'SYS-9']);
    expect((await item('SYS-1')).html).toContain('3 cm');
    expect((await item('SYS-3')).withdrawn).toBe(true);
    await client.call(undo, { params: { project } });
    const { seq: _, ...columns } = await client.call(getOutline, { params: { project } });
    expect(columns).toEqual((({ seq: _seq, ...rest }) => rest)(before));
    expect((await client.call(listSources, { params: { project } })).map((one) => one.name)).toEqual(['needs.csv', 'spec.csv']);
    await client.call(redo, { params: { project } });
    expect(await order()).toEqual(['SYS-4', 'SYS-1', 'SYS-2', 'SYS-9']);
  });

  it('lets links survive, makes those of reworded items suspect, and follows links of the file', async () => {
    const { client, project, handIn, take, item } = await scene();
    const { collections } = await client.call(getProject, { params: { project } });
    expect(collections.map((one) => one.name)).toContain('Specification');
    const level = await item('SYS-1');
    const below = await addItem(client, project, level.collection, 'Made here');
    await addLink(client, project, 'derives', below, level);
    await take((await handIn([first[0]!.replace('5 cm', '3 cm'), first[1]!.replace('NEED-1', 'NEED-2'), ...first.slice(2)])).id);
    const after = await item('SYS-1');
    expect(after.downstream.map((link) => [link.other.reference, link.suspect])).toEqual([[below.reference, true]]);
    expect(after.upstream.map((link) => [link.other.reference, link.suspect])).toEqual([['NEED-1', true]]);
    expect((await item('SYS-2')).upstream.map((link) => [link.other.reference, link.suspect])).toEqual([['NEED-2', false]]);
    await client.call(confirmLinks, { params: { project }, body: { links: after.downstream.map((link) => link.id) } });
    expect((await item('SYS-1')).downstream[0]!.suspect).toBe(false);
  });

  it('keeps what was edited here, asks about clashes, and does what is chosen', async () => {
    const { edit, handIn, compare, take, item } = await scene();
    await edit('SYS-1', { html: '<p>Hold the level within 4 cm.</p>' });
    await edit('SYS-2', { title: 'Horn' });
    const { id } = await handIn([first[0]!.replace('5 cm', '3 cm'), first[1]!.replace('Low', 'High'), ...first.slice(2)]);
    const { counts, entries } = await compare(id);
    expect(counts.conflicts).toBe(1);
    expect(entries.map((entry) => [entry.mine!.reference, entry.conflict, entry.fields.map((field) => `${field.field} ${field.verdict}`)])).toEqual([
      ['SYS-1', true, ['text conflict']],
      ['SYS-2', false, ['title mine', 'field:priority theirs']],
    ]);
    await take(id);
    expect((await item('SYS-1')).html).toContain('4 cm');
    expect(await item('SYS-2')).toMatchObject({ title: 'Horn', fields: { priority: 'High' } });
    const next = await handIn([first[0]!.replace('5 cm', '2 cm'), first[1]!.replace('Low', 'High'), ...first.slice(2)]);
    const clash = await compare(next.id);
    expect(clash.entries.map((entry) => [entry.mine!.reference, entry.conflict])).toContainEqual(['SYS-1', true]);
    await take(next.id, { choices: { t0: { text: 'theirs' } } });
    expect((await item('SYS-1')).html).toContain('2 cm');
  });

  it('does not ask again about a clash that was settled', async () => {
    const { edit, handIn, compare, take } = await scene();
    await edit('SYS-1', { html: '<p>Hold the level within 4 cm.</p>' });
    const newer = [first[0]!.replace('5 cm', '3 cm'), ...first.slice(1)];
    await take((await handIn(newer)).id);
    expect((await compare((await handIn(newer)).id)).counts.conflicts).toBe(0);
  });

  it('leaves alone what a person withdrew, and returns it when asked', async () => {
    const { client, project, handIn, compare, take, item } = await scene();
    await client.call(withdrawItems, { params: { project }, body: { items: [(await item('SYS-3')).id] } });
    expect((await compare((await handIn(first)).id)).counts).toMatchObject({ same: 4, conflicts: 0 });
    const newer = [...first.slice(0, 2), first[2]!.replace('Light', 'Brightly light'), first[3]!];
    const { entries } = await compare((await handIn(newer)).id);
    expect(entries).toMatchObject([{ sort: 'returned', conflict: true }]);
    await take((await handIn(newer)).id, { choices: { t2: 'theirs' } });
    expect(await item('SYS-3')).toMatchObject({ withdrawn: false, html: expect.stringContaining('Brightly') });
  });

  it('keeps the order made here and puts new ones behind their neighbours', async () => {
    const { client, project, handIn, take, item, order } = await scene();
    await client.call(moveItem, { params: { project, item: 'SYS-4' }, body: { parent: null, after: (await item('SYS-1')).id } });
    await take((await handIn([first[0]!, first[1]!, 'SYS-8,New,New.,Low,', first[2]!, first[3]!])).id);
    expect(await order()).toEqual(['SYS-1', 'SYS-4', 'SYS-2', 'SYS-8', 'SYS-3']);
  });

  it('puts what came out of its parent among the items of the top, in the order of the file', async () => {
    const below = [first[0]!, `${first[1]},SYS-1`, `${first[2]},SYS-1`, first[3]!];
    const { handIn, take, order, client, project } = await scene(below);
    const parents = async () => {
      const { reference, parent } = await client.call(getOutline, { params: { project } });
      return reference.flatMap((one, row) => (one.startsWith('SYS') && parent[row]! >= 0 ? [`${one} below ${reference[parent[row]!]}`] : []));
    };
    expect(await parents()).toEqual(['SYS-2 below SYS-1', 'SYS-3 below SYS-1']);
    await take((await handIn([below[0]!, below[1]!, first[3]!, first[2]!])).id);
    expect(await order()).toEqual(['SYS-1', 'SYS-2', 'SYS-4', 'SYS-3']);
    expect(await parents()).toEqual(['SYS-2 below SYS-1']);
  });

  it('takes a correction of what is which', async () => {
    const { handIn, compare, take, item } = await scene();
    const { id } = await handIn(['SYS-7,Level,Hold the level within 5 cm.,High,NEED-1', ...first.slice(1)]);
    expect((await compare(id)).counts).toMatchObject({ new: 1, removed: 1 });
    const level = await item('SYS-1');
    expect((await compare(id, [[0, level.id]])).counts).toMatchObject({ new: 0, removed: 0, same: 4 });
    await take(id, { pairs: [[0, level.id]] });
    expect(await item('SYS-1')).toMatchObject({ id: level.id, withdrawn: false });
  });

  it('keeps the formatting of texts whose words a sheet leaves as they are, and takes links that stand here for no news', async () => {
    const { client, project, source, edit, item } = await scene();
    const html = '<p>Hold the level within <strong>5 cm</strong>.</p>';
    await edit('SYS-1', { html });
    await edit('SYS-2', { html: '<p>Sound a <em>siren</em> before moving.</p>' });
    await addLink(client, project, 'derives', await item('SYS-3'), await item('NEED-2'));
    const [one, two, three, four] = first as [string, string, string, string];
    const entry = await client.upload(project, 'spec 2.csv', sheet(one, two.replace('before', 'long before'), `${three}NEED-2`, four));
    const compared = await client.call(compareFile, { params: { project, tray: entry.id }, body: { source: source.id } });
    expect(compared.counts).toMatchObject({ changed: 1, conflicts: 1 });
    expect(compared.entries.map((entry) => entry.mine!.reference)).toEqual(['SYS-2']);
    expect(compared.issues.filter((issue) => issue.code === 'formatting-plain')).toMatchObject([{ at: 'SYS-2' }]);
    expect((await item('SYS-1')).html).toBe(html);
  });

  it('refuses when the project changed since the comparison, and keeps nothing of it', async () => {
    const { client, project, source, handIn, compare, edit, order } = await scene();
    const { id } = await handIn([...first, 'SYS-9,Log,Record all.,Low,']);
    const { seq } = await compare(id);
    await edit('SYS-2', { title: 'Horn' });
    const { job } = await client.call(importFile, { params: { project, tray: id }, body: { again: { source: source.id, seq } } });
    await expect
      .poll(() => client.call(getJob, { params: { project, job } }))
      .toMatchObject({ state: 'failed', message: expect.stringContaining('compare again, your choices are kept') });
    expect(await order()).not.toContain('SYS-9');
    expect((await compare(id)).counts.new).toBe(1);
  });

  it('refuses a source whose import was undone', async () => {
    const { client, project, handIn, compare } = await scene();
    const { id } = await handIn(first);
    await client.call(undo, { params: { project } });
    await expect(compare(id)).rejects.toMatchObject({ code: 'not-found', message: expect.stringContaining('undone') });
    expect(
      (
        await client.call(readCollection, {
          params: { project, collection: (await client.call(getProject, { params: { project } })).collections[0]!.id },
          query: {},
        })
      ).total,
    ).toBe(2);
  });
});
