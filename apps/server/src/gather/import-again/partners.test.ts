import { editItem, getItem, getOutline, getProject, listSources, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../../cli/client.js';
import { PastRepo } from '../../ledger/past.repo.js';
import { LedgerRepo } from '../../ledger/ledger.repo.js';
import { makeProject, useServer } from '../../testing/test-server.js';

describe('items that several partners know', () => {
  const server = useServer();
  const csv = (rows: string[]) => Buffer.from(`ID,Title,Text\n${rows.join('\n')}\n`);
  const list = { collection: { name: 'List', prefix: 'L', holds: 'specification' as const } };

  async function again(project: string, name: string, bytes: Buffer, source: string, other = false, choices: Record<string, 'mine' | 'theirs'> = {}) {
    const { seq } = await server.client.call(getProject, { params: { project } });
    return importThrough(server.client, project, name, bytes, { again: { source, seq, choices, ...(other && { other }) } });
  }
  const rowOf = async (project: string, reference: string) => {
    const { id } = await server.client.call(getItem, { params: { project, item: reference } });
    return (await server.part(LedgerRepo).findRows('item', [id])).get(id)!;
  };

  it('keep a base for each: what went through another tool and home is compared with what was last exchanged with home', async () => {
    const { project } = await makeProject(server.client);
    await importThrough(server.client, project, 'home.csv', csv(['A-1,One,The gate opens', 'A-2,Two,The gate closes', 'A-3,Three,The gate rests']), list);
    const [home] = await server.client.call(listSources, { params: { project } });
    // The other tool has words of its own for one item, and holds only two.
    await again(project, 'other.csv', csv(['A-1,One,The gate opens wide', 'A-2,Two,The gate closes']), home!.id, true, { t0: 'theirs' });
    const known = await rowOf(project, 'A-1');
    expect(known.bindings.map(({ partner, externalId }) => [partner === home!.id, externalId])).toEqual([
      [true, 'A-1'],
      [false, 'A-1'],
    ]);
    const texts = Object.values(known.exchanged).map(({ base }) => base!.values.text);
    expect(texts).toEqual(['<p>The gate opens</p>', '<p>The gate opens wide</p>']);
    expect((await rowOf(project, 'A-3')).withdrawn).toBe(false);
    expect((await rowOf(project, 'A-3')).bindings).toHaveLength(1);
    // Home changed nothing but the second: the words of the first are not taken back.
    await again(project, 'home.csv', csv(['A-1,One,The gate opens', 'A-2,Two,The gate closes at once', 'A-3,Three,The gate rests']), home!.id);
    const html = async (item: string) => (await server.client.call(getItem, { params: { project, item } })).html;
    expect([await html('A-1'), await html('A-2')]).toEqual([expect.stringContaining('wide'), expect.stringContaining('at once')]);
  });

  it('let an end be found by what the file’s own partner calls it, whatever others call so', async () => {
    const { project } = await makeProject(server.client);
    const model = (id: string, name: string) =>
      Buffer.from(
        `<?xml version="1.0"?><xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20131001"><uml:Model xmi:id="m${name}" name="${name}"><packagedElement xmi:type="uml:Component" xmi:id="${id}" name="${name} drive"/></uml:Model></xmi:XMI>`,
      );
    // Two tools call two different things e1.
    await importThrough(server.client, project, 'north.xmi', model('e1', 'North'), { collection: { name: 'North', prefix: 'N', holds: 'model' } });
    await importThrough(server.client, project, 'south.xmi', model('e1', 'South'), { collection: { name: 'South', prefix: 'S', holds: 'model' } });
    const sources = await server.client.call(listSources, { params: { project } });
    for (const name of ['north', 'south']) {
      const source = sources.find((one) => one.name === `${name}.xmi`)!;
      const title = name === 'north' ? 'North' : 'South';
      const more = Buffer.from(
        `<?xml version="1.0"?><xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20131001"><uml:Model xmi:id="m${title}" name="${title}"><packagedElement xmi:type="uml:Component" xmi:id="e1" name="${title} drive"/><packagedElement xmi:type="uml:Component" xmi:id="e2" name="${title} pump"/><packagedElement xmi:type="uml:Dependency" xmi:id="d1" client="e2" supplier="e1"/></uml:Model></xmi:XMI>`,
      );
      await again(project, `${name}.xmi`, more, source.id);
      const outline = await server.client.call(getOutline, { params: { project } });
      const pump = outline.id[outline.title.indexOf(`${title} pump`)]!;
      const sheet = await server.client.call(getItem, { params: { project, item: pump } });
      expect([...sheet.upstream, ...sheet.downstream].map((link) => link.other.title)).toEqual([`${title} drive`]);
    }
  });

  it('are what they were as of any change, and after undo', async () => {
    const { project } = await makeProject(server.client);
    await importThrough(server.client, project, 'home.csv', csv(['B-1,One,The gate opens']), list);
    const [home] = await server.client.call(listSources, { params: { project } });
    const { seq } = await server.client.call(getProject, { params: { project } });
    await again(project, 'other.csv', csv(['B-1,One,The gate opens wide']), home!.id, true);
    const { id } = await server.client.call(getItem, { params: { project, item: 'B-1' } });
    const then = (await server.part(PastRepo).findRows(project, seq, 'item', [id])).get(id)!;
    expect(then.bindings).toHaveLength(1);
    await server.client.call(undo, { params: { project } });
    const back = await rowOf(project, 'B-1');
    expect([back.bindings, back.exchanged]).toEqual([then.bindings, then.exchanged]);
    await server.client.call(editItem, { params: { project, item: id }, body: { revision: back.revision, title: 'Other' } });
    expect((await rowOf(project, 'B-1')).bindings).toEqual(then.bindings);
  });
});
