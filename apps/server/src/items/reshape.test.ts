import {
  confirmLinks,
  openFigure,
  getHistory,
  getItem,
  getOutline,
  type Item,
  joinItems,
  listLinks,
  moveItem,
  setKinds,
  splitItem,
  undo,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('one item made two, two made one', () => {
  const server = useServer();
  const call: typeof server.client.call = (...all) => server.client.call(...all);
  const sheet = (project: string, item: string) => call(getItem, { params: { project, item } });
  const links = async (project: string) => {
    const [columns, outline] = [await call(listLinks, { params: { project }, query: {} }), await call(getOutline, { params: { project } })];
    const referenceOf = new Map(outline.node.map((node, row) => [node, outline.reference[row]!]));
    return columns.from
      .map((from, index) => `${referenceOf.get(from)} ${referenceOf.get(columns.to[index]!)}${columns.suspect[index] ? ' suspect' : ''}`)
      .sort();
  };

  it('splits at a place: links are copied and suspect, fields and history go along, and one undo takes it back', async () => {
    const { project, requirements, design, tests } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'Close and tell', { html: '<p>The gate shall close.</p><p>It shall tell the desk.</p>' });
    const below = await addItem(server.client, project, requirements, 'Within 3 s', { parent: item.id });
    const next = await addItem(server.client, project, requirements, 'Open');
    const gate = await addItem(server.client, project, design, 'Gate');
    const trial = await addItem(server.client, project, tests, 'Close it');
    await addLink(server.client, project, 'satisfies', gate, item);
    await addLink(server.client, project, 'verifies', trial, item);
    const { revision } = await sheet(project, item.id);
    const { item: second, links: copied } = await call(splitItem, {
      params: { project, item: item.id },
      body: { revision, html: '<p>The gate shall close.</p>', rest: { html: '<p>It shall <em>tell</em> the desk.</p><script>x()</script>' } },
    });
    expect([second.reference, second.title, second.html, second.kind, copied]).toEqual([
      'REQ-004',
      'It shall tell the desk.',
      '<p>It shall <em>tell</em> the desk.</p>',
      item.kind,
      2,
    ]);
    expect((await sheet(project, item.id)).html).toBe('<p>The gate shall close.</p>');
    const outline = await call(getOutline, { params: { project } });
    expect(outline.reference.filter((reference) => reference.startsWith('REQ'))).toEqual(['REQ-001', below.reference, 'REQ-004', next.reference]);
    expect(await links(project)).toEqual(['DES-001 REQ-001 suspect', 'DES-001 REQ-004 suspect', 'TC-001 REQ-001 suspect', 'TC-001 REQ-004 suspect']);
    const history = await call(getHistory, { params: { project, item: second.id } });
    expect(history.map(({ action, of }) => [action, of])).toEqual([
      ['Split REQ-001 into REQ-001 and REQ-004', null],
      ['Add REQ-001', 'REQ-001'],
    ]);
    expect((await sheet(project, second.id)).origin).toBe('Split from REQ-001');
    await call(undo, { params: { project } });
    expect(await links(project)).toEqual(['DES-001 REQ-001', 'TC-001 REQ-001']);
    expect((await sheet(project, item.id)).html).toBe(item.html);
  });

  it('refuses to split where nothing stands behind, and what somebody else changed', async () => {
    const { project, requirements } = await makeProject(server.client, 'Refusing pond');
    const item = await addItem(server.client, project, requirements, 'Close', { html: '<p>Close.</p>' });
    const split = (revision: number, html: string) =>
      call(splitItem, { params: { project, item: item.id }, body: { revision, html: '<p>Close.</p>', rest: { html } } });
    await expect(split(item.revision, '<p> </p>')).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('Nothing stands behind') });
    await expect(split(item.revision + 1, '<p>x</p>')).rejects.toMatchObject({ code: 'changed-meanwhile' });
    expect((await call(getOutline, { params: { project } })).id).toHaveLength(1);
  });

  async function twoRequirements(name: string) {
    const { project, requirements, design } = await makeProject(server.client, name);
    const [a, b] = [
      await addItem(server.client, project, requirements, 'Close', { html: '<p>The gate shall close.</p>' }),
      await addItem(server.client, project, requirements, 'Tell', { html: '<p>The desk is told.</p>' }),
    ];
    const child = await addItem(server.client, project, requirements, 'By phone', { parent: b.id });
    const [gate, desk] = [await addItem(server.client, project, design, 'Gate'), await addItem(server.client, project, design, 'Desk')];
    const ids = [await addLink(server.client, project, 'satisfies', gate, a), await addLink(server.client, project, 'satisfies', gate, b)];
    ids.push(await addLink(server.client, project, 'satisfies', desk, b), await addLink(server.client, project, 'derives', b, a));
    await call(confirmLinks, { params: { project }, body: { links: ids } });
    const join = async (item: Item, other: Item) =>
      call(joinItems, {
        params: { project, item: item.id },
        body: { revision: (await sheet(project, item.id)).revision, other: other.id, otherRevision: (await sheet(project, other.id)).revision },
      });
    return { project, a, b, child, gate, join };
  }

  it('joins: text, links and children come along, what stood already is told, the other is withdrawn and its history stays readable', async () => {
    const { project, a, b, child, join } = await twoRequirements('Joining pond');
    const told = await join(a, b);
    expect(told).toMatchObject({ links: 1, already: 1, children: 1, fields: [] });
    expect(told.item.html).toBe('<p>The gate shall close.</p><p><strong>Tell</strong></p><p>The desk is told.</p>');
    expect((await sheet(project, child.id)).parent).toBe(a.id);
    const other = await sheet(project, b.id);
    expect([other.withdrawn, other.origin]).toEqual([true, 'Joined into REQ-001']);
    expect(await links(project)).toEqual(['DES-001 REQ-001 suspect', 'DES-002 REQ-001 suspect']);
    expect((await call(getHistory, { params: { project, item: a.id } })).map(({ action, of }) => [action, of])).toEqual([
      ['Join REQ-002 into REQ-001', null],
      ['Join REQ-002 into REQ-001', 'REQ-002'],
      ['Add REQ-002', 'REQ-002'],
      ['Add REQ-001', null],
    ]);
    await call(undo, { params: { project } });
    expect(await links(project)).toEqual(['DES-001 REQ-001', 'DES-001 REQ-002', 'DES-002 REQ-002', 'REQ-002 REQ-001']);
    expect((await call(getHistory, { params: { project, item: a.id } })).some(({ of }) => of !== null)).toBe(false);
  });

  it('joins no item with itself, with what it stands below, or with one of another kind', async () => {
    const { a, b, child, gate, join } = await twoRequirements('Strict pond');
    await expect(join(a, a)).rejects.toMatchObject({ message: 'REQ-001 cannot be joined with itself.' });
    await expect(join(child, b)).rejects.toMatchObject({ message: 'REQ-003 stands below REQ-002. Join it the other way round.' });
    await expect(join(a, gate)).rejects.toMatchObject({ message: 'REQ-001 is a requirement and DES-001 a component. Make them of one kind first.' });
    expect(await join(b, child)).toMatchObject({ children: 0, links: 0 });
  });

  it('makes many items of another kind, tells links that it does not allow, and lists them as findings', async () => {
    const { project, a, b, gate } = await twoRequirements('Kind pond');
    const told = await call(setKinds, { params: { project }, body: { items: [a.id, b.id, a.id], kind: 'component' } });
    expect(told).toMatchObject({ changed: 2 });
    expect(told.disallowed).toBeGreaterThan(0);
    expect([(await sheet(project, a.id)).kind, (await sheet(project, gate.id)).kind]).toEqual(['component', 'component']);
    const finding = await call(openFigure, { params: { project, figure: 'scheme:links' }, query: {} });
    expect(finding.items.map(({ reference }) => reference)).toEqual(expect.arrayContaining([a.reference, gate.reference]));
    await expect(call(setKinds, { params: { project }, body: { items: [a.id], kind: 'nothing' } })).rejects.toMatchObject({ code: 'input-invalid' });
    expect(await call(setKinds, { params: { project }, body: { items: [a.id], kind: 'component' } })).toMatchObject({ changed: 0, disallowed: 0 });
    await call(moveItem, { params: { project, item: b.id }, body: { parent: a.id, after: null } });
    await call(undo, { params: { project } });
    await call(undo, { params: { project } });
    expect((await sheet(project, a.id)).kind).toBe('requirement');
  });
});
