import {
  type BodyOf,
  buildUrl,
  createItem,
  createProject,
  editItem,
  exportCollection,
  getExportRecipe,
  getItem,
  getOutline,
  getProject,
  type importFile,
  listSources,
  moveItem,
  compareFile,
  withdrawItems,
} from '@coomb/contract';
import { readReqifFile } from '@coomb/formats';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import type { Client } from '../cli/client.js';
import { importThrough } from '../cli/client.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const supplier = readFileSync(join(process.cwd(), 'demo', 'files', '7 Gate drive of the supplier.reqif'));
type Format = 'xlsx' | 'csv' | 'md' | 'reqif';

describe('exports', () => {
  const server = useServer();
  const fetchFile = async (project: string, collection: string, format: Format, items?: string) => {
    const response = await fetch(server.address + buildUrl(exportCollection.path, { project, collection, format }, { items }));
    if (!response.ok) throw new Error(await response.text());
    return Buffer.from(await response.arrayBuffer());
  };

  async function scene(client: Client) {
    const { project, requirements, tests } = await makeProject(client, 'Out');
    const gates = await addItem(client, project, requirements, 'Gates', { heading: true });
    const stop = await addItem(client, project, requirements, 'Stop', { html: '<p>The gate shall stop.</p><p>At once.</p>', parent: gates.id });
    const start = await addItem(client, project, requirements, '=Start', { html: '<p>The gate shall start.</p>', parent: gates.id });
    await client.call(editItem, { params: { project, item: stop.id }, body: { revision: 1, fields: { priority: 'High', method: ['Test', 'Analysis'] } } });
    await addLink(client, project, 'derives', start, stop);
    await addLink(client, project, 'verifies', await addItem(client, project, tests, 'Stops'), stop);
    return { project, requirements };
  }

  const gist = async (client: Client, project: string, prefix: string) => {
    const outline = await client.call(getOutline, { params: { project } });
    const rows = outline.reference.map((reference, row) => ({ reference, row })).filter(({ reference }) => reference.startsWith(prefix));
    return Promise.all(
      rows.map(async ({ reference, row }) => {
        const sheet = await client.call(getItem, { params: { project, item: reference } });
        const { title, html, fields, heading } = sheet;
        const up = outline.parent[row]!;
        return {
          title,
          html,
          fields,
          heading,
          parent: up < 0 ? null : outline.title[up],
          upstream: sheet.upstream.filter((link) => link.other.reference.startsWith(prefix)).map((link) => link.other.title),
        };
      }),
    );
  };

  it.each<[Format, string]>([
    ['csv', 'out.csv'],
    ['xlsx', 'out.xlsx'],
    ['md', 'out.md'],
    ['reqif', 'out.reqif'],
  ])('as .%s come back by their recipe with outline, texts, fields and links', async (format, name) => {
    const { client } = server;
    const { project, requirements } = await scene(client);
    const file = await fetchFile(project, requirements, format);
    const { body } = await client.call(getExportRecipe, { params: { project, collection: requirements, format } });
    const key = { document: 'documentRecipe', sheet: 'sheetRecipe', exchange: 'exchangeRecipe' }[body.reads];
    const { id: second } = await client.call(createProject, { body: { name: 'Back' } });
    const recipe = body.reads === 'sheet' && format === 'csv' ? { ...body.recipe, sheet: 'out' } : body.recipe;
    const wish = { [key]: recipe, collection: { name: 'Back', prefix: 'REQ', holds: 'specification' } } as unknown as BodyOf<typeof importFile>;
    const outcome = await importThrough(client, second, name, file, wish);
    expect(outcome.issues.filter((issue) => issue.severity !== 'note' && !issue.message.includes('TC-001'))).toEqual([]);
    expect(await gist(client, second, 'REQ')).toEqual(await gist(client, project, 'REQ'));
  });

  it('hold only the items that were asked for, with what stands above them', async () => {
    const { client } = server;
    const { project, requirements } = await scene(client);
    expect((await fetchFile(project, requirements, 'md', 'REQ-003')).toString()).toBe(
      '# Gates\n\n###### REQ-003 \\=Start\n\nThe gate shall start.\n\nis derived from: REQ-002\n',
    );
    await expect(fetchFile(project, requirements, 'md', 'REQ-999')).rejects.toThrow('There is no REQ-999');
  });

  it('keep spreadsheets from running what somebody typed', async () => {
    const { client } = server;
    const { project, requirements } = await scene(client);
    expect((await fetchFile(project, requirements, 'csv')).toString()).toContain("REQ-003,'=Start,");
  });
});

describe('an exchange with a partner', () => {
  const server = useServer();

  async function received() {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Partner' } });
    await importThrough(client, project, 'drive.reqif', supplier, { collection: { name: 'Drive', prefix: 'GD', holds: 'specification' } });
    const [collection] = (await client.call(getProject, { params: { project } })).collections;
    const [source] = await client.call(listSources, { params: { project } });
    const send = async () =>
      Buffer.from(
        await (await fetch(server.address + buildUrl(exportCollection.path, { project, collection: collection!.id, format: 'reqif' }))).arrayBuffer(),
      );
    const edit = async (reference: string, change: object) => {
      const { id, revision } = await client.call(getItem, { params: { project, item: reference } });
      await client.call(editItem, { params: { project, item: id }, body: { revision, ...change } });
    };
    return { client, project, collection: collection!, source: source!, send, edit };
  }

  it('sends out the very file that came in when nothing was changed here', async () => {
    const { send } = await received();
    const lines = (bytes: Buffer) => bytes.toString().replace(/>\s*</g, '>\n<').trim().split('\n');
    expect(lines(await send())).toEqual(lines(supplier));
  });

  it('sends out what was changed here, and nothing else', async () => {
    const { client, project, collection, send, edit } = await received();
    await edit('GD-201', { html: '<p>Stop within <strong>0.2 s</strong>.</p>', fields: { priority: 'Low' } });
    await client.call(withdrawItems, { params: { project }, body: { items: [(await client.call(getItem, { params: { project, item: 'GD-104' } })).id] } });
    const after = await client.call(getItem, { params: { project, item: 'GD-303' } });
    await client.call(createItem, {
      params: { project },
      body: { collection: collection.id, title: 'Spare parts', html: '<p>Kept for thirty years.</p>', after: after.id },
    });
    const { exchange } = await readReqifFile(await send());
    const { exchange: before } = await readReqifFile(supplier);
    const changed = exchange.objects.filter(
      (object) => JSON.stringify({ ...object, line: 0 }) !== JSON.stringify({ ...before.objects.find((one) => one.id === object.id), line: 0 }),
    );
    expect(changed.map((object) => object.values['a-text'])).toEqual(['<p>Stop within <strong>0.2 s</strong>.</p>', '<p>Kept for thirty years.</p>']);
    expect(changed[0]!.values['a-priority']).toEqual(['Low']);
    expect(exchange.objects).toHaveLength(before.objects.length);
    expect(
      exchange.outlines[0]!.nodes.at(-1)!
        .children.map((node) => node.object)
        .slice(0, -1),
    ).toEqual(['gd-301', 'gd-302', 'gd-303']);
  });

  it('brings back exactly what the partner changed, while ours stays', async () => {
    const { client, project, source, send, edit } = await received();
    await edit('GD-301', { title: 'Exchange by two' });
    const theirs = Buffer.from(
      (await send()).toString().replace('1.4 times its rated torque', '1.3 times its rated torque').replace('within 3 mm', 'within 2 mm'),
    );
    const entry = await client.upload(project, 'drive back.reqif', theirs);
    const { entries, counts } = await client.call(compareFile, { params: { project, tray: entry.id }, body: { source: source.id } });
    expect(counts).toMatchObject({ changed: 2, new: 0, removed: 0, moved: 0, conflicts: 0 });
    expect(entries.map((one) => [one.mine!.reference, one.fields.filter((field) => field.verdict === 'theirs').map((field) => field.field)])).toEqual([
      ['GD-102', ['title', 'text']],
      ['GD-103', ['title', 'text']],
    ]);
  });

  it('sends out a new order', async () => {
    const { client, project, send } = await received();
    const last = await client.call(getItem, { params: { project, item: 'GD-105' } });
    await client.call(moveItem, { params: { project, item: 'GD-101' }, body: { parent: last.parent, after: last.id } });
    const { exchange } = await readReqifFile(await send());
    expect(exchange.outlines[0]!.nodes[0]!.children.map((node) => node.object)).toEqual(['gd-102', 'gd-103', 'gd-104', 'gd-105', 'gd-101']);
  });
});
