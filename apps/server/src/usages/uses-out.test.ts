import {
  type BodyOf,
  buildUrl,
  createItem,
  createLinks,
  createProject,
  exportCollection,
  getExportRecipe,
  getItem,
  getOutline,
  type importFile,
  listChanges,
  listLinks,
  removeLinks,
  tryExport,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

type Format = 'reqif' | 'xlsx' | 'csv' | 'md';

/** The drive at the weir and at the lock; its travel satisfies one requirement here and another there. All in one collection but the last requirement. */
describe('links that hold in one use', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const { project, requirements, design } = await makeProject(client);
    const make = (kind: string, title: string, parent: string | null = null) =>
      client.call(createItem, { params: { project }, body: { collection: design, kind, title, parent } });
    const weir = await make('component', 'Weir');
    const lock = await make('component', 'Lock');
    const drive = await make('component', 'Drive');
    const travel = await make('value', 'travel', drive.id);
    const weirDrive = await make('part', 'weir drive', weir.id);
    const lockDrive = await make('part', 'lock drive', lock.id);
    await addLink(client, project, 'typed', weirDrive, drive);
    await addLink(client, project, 'typed', lockDrive, drive);
    const short = await make('requirement', 'Short travel');
    const long = await make('requirement', 'Long travel');
    const far = await addItem(client, project, requirements, 'Travel of all');
    const inWeir = [weir.id, weirDrive.id, drive.id, travel.id];
    const inLock = [lock.id, lockDrive.id, drive.id, travel.id];
    const satisfy = (to: string, fromUsage?: string[]) =>
      client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'satisfies', from: travel.id, to, ...(fromUsage && { fromUsage }) }] } });
    await satisfy(long.id, inWeir);
    await satisfy(short.id, inLock);
    await satisfy(far.id, inLock);
    const { ids } = await client.call(createLinks, {
      params: { project },
      body: { links: [{ linkKind: 'satisfies', from: weirDrive.id, to: short.id }] },
    });
    return { client, project, design, requirements, travel, plain: ids[0]! };
  }

  const fetchFile = async (project: string, collection: string, format: Format) => {
    const response = await fetch(server.address + buildUrl(exportCollection.path, { project, collection, format }));
    if (!response.ok) throw new Error(await response.text());
    return Buffer.from(await response.arrayBuffer());
  };
  /** Links that satisfy, in words, each with the use in which it holds. */
  const says = async (project: string) => {
    const outline = await server.client.call(getOutline, { params: { project } });
    const titleOf = new Map(outline.node.map((node, row) => [node, outline.title[row]!]));
    const links = await server.client.call(listLinks, { params: { project }, query: {} });
    return links.id
      .map(
        (_, at) =>
          `${titleOf.get(links.from[at]!)} → ${titleOf.get(links.to[at]!)}${links.fromUsage[at]! >= 0 ? ` as ${links.usages[links.fromUsage[at]!]}` : ''}`,
      )
      .filter((text) => text.includes('ravel') && !text.startsWith('travel → Drive'))
      .sort();
  };
  const expected = [
    'travel → Long travel as Weir › weir drive › travel',
    'travel → Short travel as Lock › lock drive › travel',
    'travel → Travel of all as Lock › lock drive › travel',
    'weir drive → Short travel',
  ];

  it.each<[Format]>([['reqif'], ['xlsx'], ['csv'], ['md']])('go out as .%s and come back, read on the spot and by another project', async (format) => {
    const { client, project, design, requirements } = await scene();
    expect(await says(project)).toEqual(expected);
    const read = await client.call(tryExport, { params: { project, format }, body: { collection: design } });
    expect(read.differences.filter(({ what }) => what.startsWith('Link'))).toEqual([]);
    expect(read.links.back).toBe(read.links.out);
    const { id: second } = await client.call(createProject, { body: { name: 'Back' } });
    for (const [collection, prefix] of [
      [requirements, 'REQ'],
      [design, 'DES'],
    ] as const) {
      const { body } = await client.call(getExportRecipe, { params: { project, collection, format } });
      const recipe = body.reads === 'sheet' && format === 'csv' ? { ...body.recipe, sheet: prefix } : body.recipe;
      const wish = { [`${body.reads}Recipe`]: recipe, collection: { name: prefix, prefix, holds: 'model' } } as unknown as BodyOf<typeof importFile>;
      await importThrough(client, second, `${prefix}.${format}`, await fetchFile(project, collection, format), wish);
    }
    expect(await says(second)).toEqual(expected);
  });

  it('survive going to a partner and home again, where one was removed and one was added in another use', async () => {
    const { client, project, design } = await scene();
    const file = await fetchFile(project, design, 'reqif');
    const { body } = await client.call(getExportRecipe, { params: { project, collection: design, format: 'reqif' } });
    const { id: partner } = await client.call(createProject, { body: { name: 'Partner' } });
    const wish = (more: object) => ({ exchangeRecipe: body.recipe, ...more }) as unknown as BodyOf<typeof importFile>;
    const first = await importThrough(client, partner, 'model.reqif', file, wish({ collection: { name: 'DES', prefix: 'DES', holds: 'model' } }));
    const without = expected.filter((text) => !text.includes('of all'));
    expect(await says(partner)).toEqual(without);
    // The partner removes the link at the lock and makes it at the weir.
    const outline = await client.call(getOutline, { params: { project: partner } });
    const idOf = (title: string) => outline.id[outline.title.indexOf(title)]!;
    const links = await client.call(listLinks, { params: { project: partner }, query: {} });
    const atLock = links.id.find((_, at) => links.usages[links.fromUsage[at]!]?.startsWith('Lock'))!;
    await client.call(removeLinks, { params: { project: partner }, body: { links: [atLock] } });
    const fromUsage = ['Weir', 'weir drive', 'Drive', 'travel'].map(idOf);
    await client.call(createLinks, {
      params: { project: partner },
      body: { links: [{ linkKind: 'satisfies', from: idOf('travel'), to: idOf('Short travel'), fromUsage }] },
    });
    const home = await fetchFile(partner, first.collection!, 'reqif');
    const [batch] = await client.call(listChanges, { params: { project: partner }, query: {} });
    const { id: third } = await client.call(createProject, { body: { name: 'Third' } });
    const began = await importThrough(client, third, 'model.reqif', file, wish({ collection: { name: 'DES', prefix: 'DES', holds: 'model' } }));
    const { source } = await client.call(getItem, { params: { project: third, item: 'DES-004' } });
    const [now] = await client.call(listChanges, { params: { project: third }, query: {} });
    expect(began.items).toBe(first.items);
    expect(batch!.seq).toBeGreaterThan(0);
    await importThrough(client, third, 'model.reqif', home, wish({ again: { source: source!.id, seq: now!.seq } }));
    expect(await says(third)).toEqual([
      'travel → Long travel as Weir › weir drive › travel',
      'travel → Short travel as Weir › weir drive › travel',
      'weir drive → Short travel',
    ]);
  });

  it('are not made where the path leads nowhere, and that is told', async () => {
    const { client, project, design } = await scene();
    const text = 'Reference;Title;satisfies\nX-1;Stroke;DES-007(DES-001/X-1)\n';
    const recipe = {
      ...{ name: 'Strokes', sheet: 'strokes', headerRow: 0, kind: 'value' },
      columns: [
        { column: 0, name: 'Reference', meaning: { as: 'reference' } },
        { column: 1, name: 'Title', meaning: { as: 'title' } },
        { column: 2, name: 'satisfies', meaning: { as: 'link', linkKind: 'satisfies', reversed: false } },
      ],
    };
    const lost = text.replace('DES-001/', 'DES-099/');
    const wish = { sheetRecipe: recipe, collection: { id: design } } as unknown as BodyOf<typeof importFile>;
    const outcome = await importThrough(client, project, 'strokes.csv', Buffer.from(lost), wish);
    expect(outcome.issues.map(({ code }) => code)).toContain('link-target-unknown');
    expect(outcome.links).toBe(0);
  });

  /** Other dialects of the same: the values of the relation's stereotype lead to the properties. */
  const model = (more: string) => `<?xml version="1.0" encoding="UTF-8"?>
<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20131001" xmlns:sysml="http://www.omg.org/spec/SysML/20181001/SysML">
<uml:Model xmi:id="root" name="Weir">
<packagedElement xmi:type="uml:Class" xmi:id="weir" name="Weir"><ownedAttribute xmi:type="uml:Property" xmi:id="wd" name="weir drive" aggregation="composite" type="drive"/></packagedElement>
<packagedElement xmi:type="uml:Class" xmi:id="lock" name="Lock"><ownedAttribute xmi:type="uml:Property" xmi:id="ld" name="lock drive" aggregation="composite" type="drive"/></packagedElement>
<packagedElement xmi:type="uml:Class" xmi:id="drive" name="Drive"><ownedAttribute xmi:type="uml:Property" xmi:id="travel" name="travel" type="metre"/></packagedElement>
<packagedElement xmi:type="uml:DataType" xmi:id="metre" name="Metre"/>
<packagedElement xmi:type="uml:Class" xmi:id="long" name="Long travel"/>
<packagedElement xmi:type="uml:Class" xmi:id="short" name="Short travel"/>
<packagedElement xmi:type="uml:Abstraction" xmi:id="sat" client="travel" supplier="long"/>
</uml:Model>
<sysml:Block xmi:id="b1" base_Class="weir"/><sysml:Block xmi:id="b2" base_Class="lock"/><sysml:Block xmi:id="b3" base_Class="drive"/>
<sysml:ValueType xmi:id="v1" base_DataType="metre"/>
<sysml:Requirement xmi:id="q1" base_Class="long" id="R-1" text="Long."/><sysml:Requirement xmi:id="q2" base_Class="short" id="R-2" text="Short."/>
<sysml:Satisfy xmi:id="s1" base_Abstraction="sat"${more}/>
</xmi:XMI>`;
  const used = model(' sourceContext="weir" sourcePropertyPath="wd"');
  const bringModel = (project: string, text: string | Buffer) =>
    importThrough(server.client, project, 'weir.xmi', Buffer.from(text), { collection: { name: 'Model', prefix: 'M', holds: 'model' } });
  const fetchModel = async (project: string, collection: string, format: 'model' | 'xmi') => {
    const response = await fetch(server.address + buildUrl(exportCollection.path, { project, collection, format }));
    return Buffer.from(await response.arrayBuffer());
  };

  it('come in a model by the path that its stereotype tells, and go out as they came', async () => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Model' } });
    const { collection } = await bringModel(project, used);
    expect(await says(project)).toEqual(['travel → Long travel as Weir › weir drive › travel']);
    expect((await fetchModel(project, collection!, 'model')).toString()).toBe(used);
    const { id: plain } = await client.call(createProject, { body: { name: 'Plain' } });
    await bringModel(plain, model(''));
    expect(await says(plain)).toEqual(['travel → Long travel']);
  });

  it.each(['model', 'xmi'] as const)('made here go out in a model as %s with their path, and another project reads them', async (format) => {
    const { client } = server;
    const { id: project } = await client.call(createProject, { body: { name: 'Model' } });
    const { collection } = await bringModel(project, used);
    const outline = await client.call(getOutline, { params: { project } });
    const idOf = (title: string) => outline.id[outline.title.indexOf(title)]!;
    const fromUsage = ['Lock', 'lock drive', 'Drive', 'travel'].map(idOf);
    await client.call(createLinks, {
      params: { project },
      body: { links: [{ linkKind: 'satisfies', from: idOf('travel'), to: idOf('Short travel'), fromUsage }] },
    });
    const out = await fetchModel(project, collection!, format);
    expect(out.toString()).toMatch(/sourceContext[="].*lock/);
    const read = await client.call(tryExport, { params: { project, format }, body: { collection: collection! } });
    expect(read.differences.filter(({ what }) => what.startsWith('Link'))).toEqual([]);
    const { id: second } = await client.call(createProject, { body: { name: 'Second' } });
    await bringModel(second, out);
    expect(await says(second)).toEqual(['travel → Long travel as Weir › weir drive › travel', 'travel → Short travel as Lock › lock drive › travel']);
  });
});
