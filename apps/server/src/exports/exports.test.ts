import {
  buildUrl,
  compareFile,
  createItem,
  createProject,
  editItem,
  exportCollection,
  exportFormats,
  exportItems,
  getExportRecipe,
  getItem,
  getItemsRecipe,
  getOutline,
  getProject,
  listLinks,
  listSources,
  moveItem,
  readSource,
  removeLinks,
  tryExport,
  type BodyOf,
  type importFile,
  withdrawItems,
} from '@coomb/contract';
import { compareExchange, openArchive, readReqifFile, type ReqifItem } from '@coomb/formats';
import { defaultScheme, proposeExchangeRecipe } from '@coomb/core';
import { docxOf, zipOf } from '@coomb/formats/testing';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import type { Client } from '../cli/client.js';
import { importThrough } from '../cli/client.js';
import { runCommand } from '../cli/run-command.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const supplier = readFileSync(join(process.cwd(), 'demo', 'files', '7 Gate drive of the supplier.reqif'));
type Format = Exclude<(typeof exportFormats)[number], 'model'>;

describe('exports', () => {
  const server = useServer();
  const fetchFile = async (project: string, collection: string, format: Format) => {
    const response = await fetch(server.address + buildUrl(exportCollection.path, { project, collection, format }));
    if (!response.ok) throw new Error(await response.text());
    return Buffer.from(await response.arrayBuffer());
  };
  const fetchChosen = async (project: string, format: Format, items: string[]) => {
    const headers = { 'Content-Type': 'application/json' };
    const response = await fetch(server.address + buildUrl(exportItems.path, { project, format }), {
      method: 'POST',
      headers,
      body: JSON.stringify({ items }),
    });
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
    const stops = await addItem(client, project, tests, 'Stops');
    await addLink(client, project, 'verifies', stops, stop);
    return { project, requirements, tests, stop, start, stops };
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
    const key = `${body.reads}Recipe`;
    const { id: second } = await client.call(createProject, { body: { name: 'Back' } });
    const recipe = body.reads === 'sheet' && format === 'csv' ? { ...body.recipe, sheet: 'out' } : body.recipe;
    const wish = { [key]: recipe, collection: { name: 'Back', prefix: 'REQ', holds: 'specification' } } as unknown as BodyOf<typeof importFile>;
    const outcome = await importThrough(client, second, name, file, wish);
    expect(outcome.issues.filter((issue) => issue.severity !== 'note' && !issue.message.includes('TC-001'))).toEqual([]);
    expect(await gist(client, second, 'REQ')).toEqual(await gist(client, project, 'REQ'));
  });

  it.each<[Format]>([['csv'], ['reqif'], ['md'], ['xmi']])('bring links between collections back, whichever comes first, as .%s', async (format) => {
    const { client } = server;
    const { project, requirements, tests } = await scene(client);
    const { id: second } = await client.call(createProject, { body: { name: 'Back' } });
    const carry = async (collection: string, name: string, prefix: string, holds: 'specification' | 'tests') => {
      const { body } = await client.call(getExportRecipe, { params: { project, collection, format } });
      const key = `${body.reads}Recipe`;
      const recipe = body.reads === 'sheet' ? { ...body.recipe, sheet: name } : body.recipe;
      const wish = { [key]: recipe, collection: { name, prefix, holds } } as unknown as BodyOf<typeof importFile>;
      return importThrough(client, second, `${name}.${format}`, await fetchFile(project, collection, format), wish);
    };
    const first = await carry(requirements, 'requirements', 'REQ', 'specification');
    // What a model leads to is waited for.
    expect(first.issues.map((issue) => issue.code)).toContain(format === 'xmi' ? 'part-missing' : 'link-target-unknown');
    await carry(tests, 'tests', 'TC', 'tests');
    const stop = await client.call(getItem, { params: { project: second, item: 'REQ-002' } });
    expect(stop.downstream.map((link) => `${link.linkKind} ${link.other.reference}`).sort()).toEqual(['derives REQ-003', 'verifies TC-001']);
  });

  it.each(exportFormats.flatMap((format) => (format === 'model' ? [] : [[format]])))(
    'are read back on the spot as .%s, and what does not come back is told',
    async (format) => {
      const { client } = server;
      const { project, requirements, stop } = await scene(client);
      const { revision } = await client.call(getItem, { params: { project, item: stop.id } });
      await client.call(editItem, { params: { project, item: stop.id }, body: { revision, html: '<p>The gate shall</p><ul><li>stop</li></ul>' } });
      const read = await client.call(tryExport, { params: { project, format }, body: { collection: requirements } });
      expect(read).toMatchObject({ items: { out: 3, back: 3 }, links: { out: 2, back: 2 }, pictures: { out: 0, back: 0 } });
      const isPlain = format === 'csv' || format === 'xlsx' || format === 'xmi';
      expect(read.differences.map(({ what, count, items }) => [what, count, items[0]?.reference])).toEqual(
        isPlain ? [['Formatting of the text', 1, 'REQ-002']] : [],
      );
      const chosen = await client.call(tryExport, { params: { project, format }, body: { items: [stop.id] } });
      expect(chosen).toMatchObject({ items: { out: 2, back: 2 }, links: { out: 2, back: 2 } });
    },
  );

  it('hold only the items that were chosen, with what stands above them', async () => {
    const { client } = server;
    const { project, start } = await scene(client);
    expect((await fetchChosen(project, 'md', [start.id])).toString()).toBe(
      '# Gates <!-- coomb: text; reference REQ-001 -->\n\n###### REQ-003 \\=Start\n\nThe gate shall start.\n\nis derived from: REQ-002\n',
    );
    await expect(fetchChosen(project, 'md', ['00000000-0000-4000-8000-000000000000'])).rejects.toThrow('is not there any more');
    await expect(fetchChosen(project, 'md', [])).rejects.toThrow('Choose items first');
    await client.call(withdrawItems, { params: { project }, body: { items: [start.id] } });
    await expect(fetchChosen(project, 'md', [start.id])).rejects.toThrow('REQ-003 is not there any more');
  });

  it.each<[Format, string]>([
    ['csv', 'out.csv'],
    ['reqif', 'out.reqif'],
  ])('of items of several collections come back by their recipe as .%s', async (format, name) => {
    const { client } = server;
    const { project, stop, stops } = await scene(client);
    const items = [stop.id, stops.id];
    const file = await fetchChosen(project, format, items);
    const { body } = await client.call(getItemsRecipe, { params: { project, format }, body: { items } });
    const key = `${body.reads}Recipe`;
    const { id: second } = await client.call(createProject, { body: { name: 'Back' } });
    const recipe = body.reads === 'sheet' ? { ...body.recipe, sheet: 'out' } : body.recipe;
    await importThrough(client, second, name, file, {
      [key]: recipe,
      collection: { name: 'Back', prefix: 'B', holds: 'specification' },
    } as unknown as BodyOf<typeof importFile>);
    const outline = await client.call(getOutline, { params: { project: second } });
    expect(outline.title).toEqual(['Gates', 'Stop', 'Stops']);
    expect(outline.reference.slice(1)).toEqual(['REQ-002', 'TC-001']);
    const back = await client.call(getItem, { params: { project: second, item: 'TC-001' } });
    expect([back.kind, back.upstream.map((link) => link.other.reference)]).toEqual(['testCase', ['REQ-002']]);
  });

  it('keep spreadsheets from running what somebody typed', async () => {
    const { client } = server;
    const { project, requirements } = await scene(client);
    expect((await fetchFile(project, requirements, 'csv')).toString()).toContain("REQ-003,'=Start,");
  });
});

async function fetchReqif(address: string, project: string, collection: string): Promise<Buffer> {
  return Buffer.from(await (await fetch(address + buildUrl(exportCollection.path, { project, collection, format: 'reqif' }))).arrayBuffer());
}

describe('an exchange with a partner', () => {
  const server = useServer();

  async function received() {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Partner' } });
    await importThrough(client, project, 'drive.reqif', supplier, { collection: { name: 'Drive', prefix: 'GD', holds: 'specification' } });
    const [collection] = (await client.call(getProject, { params: { project } })).collections;
    const [source] = await client.call(listSources, { params: { project } });
    const send = () => fetchReqif(server.address, project, collection!.id);
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

  it('keeps every relation of the file that nobody touched, also those that the scheme has no link for, and says so where one is lost', async () => {
    const { client } = server;
    // Ten relations "satisfies" between requirements, which the scheme does not allow; two of one kind between the same ends; one to itself; one to nothing.
    const relation = (id: string, type: string, from: string, to: string) =>
      `<SPEC-RELATION IDENTIFIER="${id}" LAST-CHANGE="2026-10-01T10:00:00Z"><TYPE><SPEC-RELATION-TYPE-REF>${type}</SPEC-RELATION-TYPE-REF></TYPE><SOURCE><SPEC-OBJECT-REF>${from}</SPEC-OBJECT-REF></SOURCE><TARGET><SPEC-OBJECT-REF>${to}</SPEC-OBJECT-REF></TARGET></SPEC-RELATION>`;
    const objects = ['gd-101', 'gd-102', 'gd-103', 'gd-104', 'gd-201', 'gd-202'];
    const [type] = /<SPEC-RELATION-TYPE [^>]*IDENTIFIER="[^"]*"/.exec(supplier.toString())!;
    const derives = /IDENTIFIER="([^"]*)"/.exec(type)![1]!;
    const theirs = supplier
      .toString()
      .replace(
        '</SPEC-TYPES>',
        '<SPEC-RELATION-TYPE IDENTIFIER="t-satisfies" LAST-CHANGE="2026-10-01T10:00:00Z" LONG-NAME="satisfies"/><SPEC-RELATION-TYPE IDENTIFIER="t-derived-too" LAST-CHANGE="2026-10-01T10:00:00Z" LONG-NAME="is derived from"/></SPEC-TYPES>',
      )
      .replace(
        '</SPEC-RELATIONS>',
        `${objects
          .slice(1)
          .map((id, index) => relation(`r-s${index}`, 't-satisfies', id, 'gd-101'))
          .join(
            '',
          )}${relation('r-twice-1', derives, 'gd-202', 'gd-102')}${relation('r-twice-2', derives, 'gd-202', 'gd-102')}${relation('r-other-type', 't-derived-too', 'gd-202', 'gd-103')}${relation('r-self', derives, 'gd-201', 'gd-201')}${relation('r-out', derives, 'gd-201', 'gd-none')}</SPEC-RELATIONS>`,
      );
    const idsOf = async (bytes: Buffer) => (await readReqifFile(bytes)).exchange.relations.map((one) => one.id).sort();
    const { id: project } = await client.call(createProject, { body: { name: 'Relations' } });
    const { issues, links } = await importThrough(client, project, 'drive.reqif', Buffer.from(theirs), {
      collection: { name: 'Drive', prefix: 'GD', holds: 'specification' },
    });
    expect(issues.filter((issue) => issue.code === 'link-not-allowed').length).toBeGreaterThanOrEqual(6);
    const [collection] = (await client.call(getProject, { params: { project } })).collections;
    const send = () => fetchReqif(server.address, project, collection!.id);
    expect(await idsOf(await send())).toEqual(await idsOf(Buffer.from(theirs)));
    const readBack = () => client.call(tryExport, { params: { project, format: 'reqif' }, body: { collection: collection!.id } });
    expect((await readBack()).differences.filter((one) => one.what.includes('of the file'))).toEqual([]);

    // What somebody removes goes, with every relation that says the same; all others stay.
    const outline = await client.call(getOutline, { params: { project } });
    const nodeOf = new Map(outline.reference.map((reference, row) => [reference, outline.node[row]!]));
    const columns = await client.call(listLinks, { params: { project } });
    const at = columns.id.findIndex((_, i) => columns.from[i] === nodeOf.get('GD-202') && columns.to[i] === nodeOf.get('GD-102'));
    await client.call(removeLinks, { params: { project }, body: { links: [columns.id[at]!] } });
    const gone = (await idsOf(Buffer.from(theirs))).filter((id) => !['r-twice-1', 'r-twice-2'].includes(id));
    expect(await idsOf(await send())).toEqual(gone);
    expect((await readBack()).differences.filter((one) => one.what.includes('of the file'))).toEqual([]);
    expect(links).toBe(columns.id.length);

    // Inspecting says the same, with the reason.
    const file = join(mkdtempSync(join(tmpdir(), 'coomb-inspect-')), 'drive.reqif');
    writeFileSync(file, theirs);
    const out: string[] = [];
    await runCommand(['inspect', file, '--json'], { out: (text) => out.push(text), error: () => {} });
    const summary = JSON.parse(out[0]!);
    expect(summary.links - summary.linksOutside).toBe(links);
    expect(summary.issues.filter((issue: { code: string }) => issue.code === 'link-not-allowed')).toHaveLength(
      issues.filter((issue) => issue.code === 'link-not-allowed').length,
    );
  });

  it('tells by the file itself what a faulty writer would lose', async () => {
    const { exchange } = await readReqifFile(supplier);
    const recipe = proposeExchangeRecipe(defaultScheme, exchange);
    const items = exchange.objects.map(
      (object): ReqifItem => ({
        id: object.id,
        reference: object.id,
        externalId: object.id,
        title: '',
        html: '',
        kind: 'requirement',
        heading: false,
        parent: null,
        depth: 0,
        fields: {},
        links: [],
        changed: new Set(),
        parentAt: -1,
        ends: [],
      }),
    );
    const told = (change: (copy: typeof exchange) => void) => {
      const copy = structuredClone(exchange);
      change(copy);
      return compareExchange(recipe, items, exchange, copy).map((one) => [one.what.replace(/: .*/, ''), one.items.length]);
    };
    expect(told(() => {})).toEqual([]);
    expect(told((copy) => copy.relations.splice(0, 2))).toEqual([['Relation of the file that is gone', 2]]);
    expect(told((copy) => copy.objects.splice(0, 1))).toEqual([['Object of the file that is gone', 1]]);
    expect(told((copy) => Object.assign(copy.objects[1]!.values, { 'a-text': '<p>other</p>' }))).toEqual([['Value of the file', 1]]);
  });

  it('goes out as the archive that came in, with its pictures, and brings only what was edited', async () => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Archive' } });
    const text = supplier.toString().replace(/(GD-101[\s\S]*?<xhtml:div>)/, '$1<xhtml:object data="media/a.png" type="image/png">plan</xhtml:object>');
    const archive = zipOf({ 'drive/drive.reqif': text, 'drive/media/a.png': 'picture', 'drive/readme.txt': 'for the partner' });
    await importThrough(client, project, 'drive.reqifz', archive, { collection: { name: 'Drive', prefix: 'GD', holds: 'specification' } });
    const [collection] = (await client.call(getProject, { params: { project } })).collections;
    const item = await client.call(getItem, { params: { project, item: 'GD-101' } });
    expect(item.html).toMatch(/<img src="\/api\/projects\/[^"]+" alt="plan"/);
    const [source] = await client.call(listSources, { params: { project } });
    const { content, items } = await client.call(readSource, { params: { project, source: source!.id } });
    const place = items.find((one) => one.item.reference === 'GD-101')!;
    expect(content.type === 'text' && content.lines[place.line! - 1]).toContain('gd-101');

    await client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, html: `${item.html}<p>Ours.</p>` } });
    const address = server.address + buildUrl(exportCollection.path, { project, collection: collection!.id, format: 'reqif' });
    const response = await fetch(address);
    expect(response.headers.get('content-disposition')).toContain('Drive.reqifz');
    const sent = await openArchive(Buffer.from(await response.arrayBuffer()));
    expect(sent.names).toEqual(['drive/media/a.png', 'drive/readme.txt', 'drive/drive.reqif']);
    expect((await sent.read('drive/media/a.png')).toString()).toBe('picture');
    const { exchange } = await readReqifFile(await sent.read('drive/drive.reqif'));
    const { exchange: before } = await readReqifFile(Buffer.from(text));
    const isSame = (one: (typeof exchange.objects)[number]) =>
      JSON.stringify({ ...one, line: 0 }) === JSON.stringify({ ...before.objects.find((old) => old.id === one.id), line: 0 });
    expect(exchange.objects.filter((one) => !isSame(one)).map((one) => one.id)).toEqual(['gd-101']);
    expect(exchange.objects.find((one) => one.id === 'gd-101')!.values['a-text']).toMatch(
      /<img src="coomb-picture:media\/a.png" alt="plan" \/>.*<p>Ours\.<\/p>$/,
    );
  });

  it('carries pictures of items that came from elsewhere, and choices that no option has', async () => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Pictures' } });
    const body = '<w:p><w:r><w:t>SYS-001 The gate shall stop. </w:t></w:r><w:r><w:drawing><a:blip r:embed="rId1"/></w:drawing></w:r></w:p>';
    const relations =
      '<Relationships><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="media/gate.png"/></Relationships>';
    const docx = docxOf(body, { 'word/_rels/document.xml.rels': relations, 'word/media/gate.png': 'pixels' });
    await importThrough(client, project, 'needs.docx', Buffer.from(docx), { collection: { name: 'Gates', prefix: 'SYS', holds: 'specification' } });
    const [collection] = (await client.call(getProject, { params: { project } })).collections;
    const item = await client.call(getItem, { params: { project, item: 'SYS-001' } });
    await client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, fields: { method: ['Test', 'Prayer'] } } });
    const shown = await fetch(server.address + /src="([^"]+)"/.exec(item.html)![1]!);
    expect(shown.headers.get('content-type')).toBe('image/png');
    expect(shown.headers.get('content-security-policy')).toMatch(/^sandbox; default-src 'none'/);
    const file = await fetchReqif(server.address, project, collection!.id);
    const { exchange } = await readReqifFile(file);
    const [object] = exchange.objects;
    expect(object!.values['requirement.method']).toEqual(['Test', 'Prayer']);
    const [name, picture] = [...exchange.pictures][0]!;
    expect(Buffer.from(picture.bytes).toString()).toBe('pixels');
    expect(object!.values['requirement.text']).toContain(`<img src="coomb-picture:${name}"`);
  });

  it.each<[Format]>([['reqif'], ['md']])('brings formulas of older office programs back as .%s', async (format) => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Formulas' } });
    const wmf = '183GmgAAAAAAAMgAZABgAAAAAADdVwEACQAAAyYAAAAAAAkAAAAAAAUAAAALAgAAAAAFAAAADAJkAMgABwAAABsEWgC+AAoACgAJAAAAIQUFAFEgPSB2ACgAHgADAAAAAAA=';
    const body = '<w:p><w:r><w:t>SYS-001 The flow shall be </w:t></w:r><w:r><w:drawing><a:blip r:embed="rId1"/></w:drawing></w:r></w:p>';
    const relations =
      '<Relationships><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="media/f.wmf"/></Relationships>';
    const docx = docxOf(body, { 'word/_rels/document.xml.rels': relations, 'word/media/f.wmf': Buffer.from(wmf, 'base64') });
    await importThrough(client, project, 'flow.docx', Buffer.from(docx), { collection: { name: 'Flow', prefix: 'SYS', holds: 'specification' } });
    const [collection] = (await client.call(getProject, { params: { project } })).collections;
    const read = await client.call(tryExport, { params: { project, format }, body: { collection: collection!.id } });
    expect(read).toMatchObject({ pictures: { out: 1, back: 1 }, differences: [] });
  });

  it('sends out a new order', async () => {
    const { client, project, send } = await received();
    const last = await client.call(getItem, { params: { project, item: 'GD-105' } });
    await client.call(moveItem, { params: { project, item: 'GD-101' }, body: { parent: last.parent, after: last.id } });
    const { exchange } = await readReqifFile(await send());
    expect(exchange.outlines[0]!.nodes[0]!.children.map((node) => node.object)).toEqual(['gd-102', 'gd-103', 'gd-104', 'gd-105', 'gd-101']);
  });
});
