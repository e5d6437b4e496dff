import {
  type BodyOf,
  confirmLinks,
  createItem,
  createLinks,
  editConflictSchema,
  editItem,
  getHistory,
  getItem,
  getOutline,
  getProject,
  type Item,
  listLinks,
  moveItem,
  removeLinks,
  type ReplyOf,
  restoreItems,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { pick as choose, seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { buildClient } from '../cli/client.js';
import { verifyDatabase } from '../backup/verify.js';
import { DATABASE } from '../http/tokens.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

/** Everything that a field of an item said after some change of it. */
const saidIn = (history: ReplyOf<typeof getHistory>) =>
  history.flatMap(({ changes }) =>
    changes.map(({ words }) =>
      words
        .filter(({ type }) => type !== 'removed')
        .map(({ text }) => text)
        .join(''),
    ),
  );

describe('two people at once', () => {
  const server = useServer();
  const ben = () => buildClient(server.address, 'Ben Hale');
  /** A call that says which change it is based on. */
  const basedOn = (seq: number) => async (path: string, body: unknown) => {
    const response = await fetch(`${server.address}/api${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'X-Coomb-Person': 'Ada%20Wick', 'X-Coomb-Based-On': String(seq) },
      body: JSON.stringify(body),
    });
    return { status: response.status, body: (await response.json()) as { error?: { code: string; message: string; details: Record<string, unknown> } } };
  };
  const edit = (client: ReturnType<typeof ben>, project: string, item: Item, body: Omit<BodyOf<typeof editItem>, 'revision'>, revision = item.revision) =>
    client.call(editItem, { params: { project, item: item.id }, body: { revision, ...body } });

  it('change different fields of one item: both hold, however many changes lie between', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'Gate');
    let theirs = item;
    for (let i = 0; i < 5; i++) theirs = await edit(ben(), project, theirs, { html: `<p>Closes in ${i} s.</p>` });
    const joined = await edit(server.client, project, item, { title: 'Sluice gate', fields: { priority: 'High' } });
    expect(joined).toMatchObject({ title: 'Sluice gate', html: '<p>Closes in 4 s.</p>', fields: { priority: 'High' } });
    await server.restart();
    const after = await edit(server.client, project, item, { fields: { owner: 'Ida Fell' } });
    expect(after).toMatchObject({ title: 'Sluice gate', html: '<p>Closes in 4 s.</p>', fields: { priority: 'High', owner: 'Ida Fell' } });
  });

  it('change the same field: the second is shown both, and says which holds; the other stays in the history', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'Gate', { html: '<p>Closes.</p>' });
    await edit(ben(), project, item, { title: 'Sluice', html: '<p>Closes at once.</p>' });
    const mine = { title: 'Weir gate', html: '<p>Closes in 4 s.</p>', fields: { priority: 'High' } };
    const refused = await edit(server.client, project, item, mine).catch((error: { code: string; details: unknown }) => error);
    const told = editConflictSchema.parse((refused as { details: unknown }).details);
    expect(told).toEqual({
      revision: 2,
      by: 'Ben Hale',
      conflicts: [
        { field: 'title', label: 'Title', base: 'Gate', mine: 'Weir gate', theirs: 'Sluice' },
        { field: 'text', label: 'Text', base: '<p>Closes.</p>', mine: '<p>Closes in 4 s.</p>', theirs: '<p>Closes at once.</p>' },
      ],
    });
    // Settled, but somebody changed it again meanwhile: what was not seen is not overwritten.
    const now = await server.client.call(getItem, { params: { project, item: item.id } });
    await edit(ben(), project, now, { title: 'Sluice gate' });
    const settled = { revision: told.revision, fields: { title: 'mine' as const, text: 'theirs' as const } };
    await expect(edit(server.client, project, item, { ...mine, settled })).rejects.toMatchObject({ code: 'changed-meanwhile' });
    const stored = await edit(server.client, project, item, { ...mine, settled: { ...settled, revision: 3 } });
    expect(stored).toMatchObject({ title: 'Weir gate', html: '<p>Closes at once.</p>', fields: { priority: 'High' } });
    const history = await server.client.call(getHistory, { params: { project, item: item.id } });
    expect(saidIn(history)).toContain('Sluice gate');
  });

  it('say the same: there is nothing to settle', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'Gate');
    await edit(ben(), project, item, { title: 'Sluice' });
    expect((await edit(server.client, project, item, { title: 'Sluice', fields: { priority: 'Low' } })).fields).toEqual({ priority: 'Low' });
  });

  it('move one item: the second is told where it stands, and text edits meanwhile do not matter', async () => {
    const { project, requirements } = await makeProject(server.client);
    const [one, two, three] = [
      await addItem(server.client, project, requirements, 'One'),
      await addItem(server.client, project, requirements, 'Two'),
      await addItem(server.client, project, requirements, 'Three'),
    ];
    const { seq } = await server.client.call(getProject, { params: { project } });
    await edit(ben(), project, one, { title: 'First' });
    const call = basedOn(seq);
    expect((await call(`/projects/${project}/items/${one.id}/move`, { parent: two.id, after: null })).status).toBe(200);
    await ben().call(moveItem, { params: { project, item: three.id }, body: { parent: one.id, after: null } });
    const refused = await call(`/projects/${project}/items/${three.id}/move`, { parent: two.id, after: null });
    expect([refused.status, refused.body.error!.message]).toEqual([409, expect.stringContaining('moved by Ben Hale')]);
    const outline = await server.client.call(getOutline, { params: { project } });
    expect(outline.parent[outline.title.indexOf('Three')]).toBe(outline.title.indexOf('First'));
  });

  it('take away what the other changed: refused, naming it; what only one touched goes', async () => {
    const { project, requirements, tests } = await makeProject(server.client);
    const one = await addItem(server.client, project, requirements, 'One');
    const two = await addItem(server.client, project, requirements, 'Two');
    const test = await addItem(server.client, project, tests, 'Try');
    const link = await addLink(server.client, project, 'verifies', test, one);
    const other = await addLink(server.client, project, 'verifies', test, two);
    const { seq } = await server.client.call(getProject, { params: { project } });
    const call = basedOn(seq);
    await edit(ben(), project, one, { title: 'First' });
    await ben().call(confirmLinks, { params: { project }, body: { links: [link] } });
    const items = await call(`/projects/${project}/items/withdraw`, { items: [one.id, two.id] });
    expect([items.status, items.body.error!.message]).toEqual([409, expect.stringContaining('REQ-001 by Ben Hale')]);
    expect((await call(`/projects/${project}/items/withdraw`, { items: [two.id] })).status).toBe(200);
    const links = await call(`/projects/${project}/links/remove`, { links: [link] });
    expect([links.status, links.body.error!.code]).toEqual([409, 'changed-meanwhile']);
    expect((await call(`/projects/${project}/links/remove`, { links: [other] })).status).toBe(200);
  });

  it('confirm a link whose end says something else since it was looked at: refused', async () => {
    const { project, requirements, tests } = await makeProject(server.client);
    const one = await addItem(server.client, project, requirements, 'One');
    const test = await addItem(server.client, project, tests, 'Try');
    const link = await addLink(server.client, project, 'verifies', test, one);
    await edit(ben(), project, one, { html: '<p>Once.</p>' });
    const { seq } = await server.client.call(getProject, { params: { project } });
    const now = await server.client.call(getItem, { params: { project, item: one.id } });
    await edit(ben(), project, now, { html: '<p>Twice.</p>' });
    const refused = await basedOn(seq)(`/projects/${project}/links/confirm`, { links: [link] });
    expect([refused.status, refused.body.error!.message]).toEqual([409, expect.stringContaining('REQ-001 came to say something else')]);
    const seen = await server.client.call(getProject, { params: { project } });
    expect((await basedOn(seen.seq)(`/projects/${project}/links/confirm`, { links: [link] })).status).toBe(200);
  });
});

/**
 * Five clients, each with what it saw last, which may be old: whatever the server acknowledged is either there, or somebody who had seen it
 * replaced it; nothing that was only ever refused is there.
 */
describe('a thousand random edits by five clients at once', () => {
  const server = useServer();

  it('lose nothing, and leave the database, the memory and the history at one', async () => {
    const { project, requirements, tests } = await makeProject(server.client);
    const items: Item[] = [];
    for (let i = 0; i < 12; i++) items.push(await addItem(server.client, project, i % 3 === 2 ? tests : requirements, `Item ${i}`));
    const wrote = new Map<string, { field: string; value: string; base: string }[]>();
    let [acknowledged, refused] = [0, 0];
    const names = ['title', 'priority', 'owner', 'rationale'] as const;
    const worker = async (number: number) => {
      const client = buildClient(server.address, `Client ${number}`);
      const random = seeded(number + 1);
      const known = new Map(items.map((item) => [item.id, item]));
      const pick = <T>(list: readonly T[]) => choose(random, list);
      const saidBy = (item: Item, field: string) => String(field === 'title' ? item.title : (item.fields[field] ?? ''));
      for (let step = 0; step < 200; step++) {
        const item = known.get(pick(items).id)!;
        const dice = random();
        try {
          if (dice < 0.6) {
            const field = pick(item.collection === requirements ? names : (['title'] as const));
            const value = `${field} ${number}.${step}`;
            const base = saidBy(item, field);
            const body = field === 'title' ? { title: value } : { fields: { [field]: value } };
            const stored = await client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, ...body } });
            wrote.set(item.id, [...(wrote.get(item.id) ?? []), { field, value, base }]);
            known.set(item.id, stored);
          } else if (dice < 0.7)
            await client.call(moveItem, { params: { project, item: item.id }, body: { parent: random() < 0.5 ? null : pick(items).id, after: null } });
          else if (dice < 0.8)
            await client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'derives', from: item.id, to: pick(items).id }] } });
          else if (dice < 0.84) await client.call(withdrawItems, { params: { project }, body: { items: [item.id] } });
          else if (dice < 0.92) await client.call(restoreItems, { params: { project }, body: { items: [item.id] } });
          else if (dice < 0.94) await client.call(undo, { params: { project } });
          else if (dice < 0.96) await client.call(createItem, { params: { project }, body: { collection: requirements, title: `New ${number}.${step}` } });
          else if (dice < 0.98) {
            const { id } = await client.call(listLinks, { params: { project }, query: {} });
            if (id.length > 0) await client.call(removeLinks, { params: { project }, body: { links: [pick(id)] } });
          } else known.set(item.id, await client.call(getItem, { params: { project, item: item.id } }));
          acknowledged++;
        } catch (error) {
          const { code } = error as { code?: string };
          if (
            !['changed-meanwhile', 'link-exists', 'link-not-allowed', 'move-refused', 'undo-refused', 'nothing-to-undo', 'not-found', 'input-invalid'].includes(
              code ?? '',
            )
          )
            throw error;
          refused++;
          // Whoever is refused looks again.
          if (code === 'changed-meanwhile') known.set(item.id, await client.call(getItem, { params: { project, item: item.id } }));
        }
      }
    };
    await Promise.all([0, 1, 2, 3, 4].map(worker));
    expect(acknowledged).toBeGreaterThan(300);
    expect(refused).toBeGreaterThan(20);

    for (const item of items) {
      const history = await server.client.call(getHistory, { params: { project, item: item.id } });
      const told = saidIn(history);
      // Every acknowledged value is in the history, and what stands now was acknowledged, or undone to.
      for (const { value } of wrote.get(item.id) ?? []) expect(told).toContain(value);
    }
    const inMemory = await server.client.call(getOutline, { params: { project } });
    const linksInMemory = await server.client.call(listLinks, { params: { project }, query: {} });
    await server.restart();
    const read = await server.client.call(getOutline, { params: { project } });
    expect({ ...read, life: '' }).toEqual({ ...inMemory, life: '' });
    const links = await server.client.call(listLinks, { params: { project }, query: {} });
    expect([...links.id].sort()).toEqual([...linksInMemory.id].sort());
    const findings = await verifyDatabase(server.part(DATABASE as never));
    expect(findings.flatMap(({ what, faults }) => faults.map((fault) => `${what}: ${fault}`))).toEqual([]);
  }, 240_000);
});
