import {
  confirmLinks,
  createLinks,
  createWaiver,
  editItem,
  getOutline,
  getReadiness,
  listLinks,
  moveItem,
  redo,
  removeLinks,
  restoreItems,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { seeded } from '@coomb/core/testing';
import type { Client } from '../cli/client.js';
import { importThrough } from '../cli/client.js';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';
import { LinkIds } from './link-ids.js';
import { ProjectState } from './project-state.js';
import { ProjectStates } from './project-states.js';

/** Everything that memory tells of a project, in an order that does not depend on how it came about. */
async function readAll(client: Client, project: string) {
  const outline = await client.call(getOutline, { params: { project } });
  const links = await client.call(listLinks, { params: { project } });
  const reference = new Map(outline.node.map((node, row) => [node, outline.reference[row]!]));
  const { node: _, ...columns } = outline;
  const shown = links.id.map((id, i) => `${id} ${reference.get(links.from[i]!)} ${reference.get(links.to[i]!)} ${links.kind[i]} ${links.suspect[i]}`).sort();
  return { columns, links: shown, readiness: await client.call(getReadiness, { params: { project } }) };
}

describe('the project in memory', () => {
  const server = useServer();

  it('gives a snapshot of one moment, whatever comes before something is made of it', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client, 'Snapshot');
    await addItem(client, project, requirements, 'Level');
    const present = await server.part(ProjectStates).get(project);
    present.outline();
    const parts = present.snapshot();
    const later = await addItem(client, project, requirements, 'Later');
    const copy = new ProjectState({ ...parts, day: present.day });
    expect([...copy.nodeOf.keys()]).toEqual(copy.items.map((item) => item.id));
    expect([copy.byReference.get('req-001'), copy.byReference.get(later.reference.toLowerCase())]).toEqual([0, undefined]);
    expect(copy.outline().nodes).toEqual(Int32Array.of(0));
    expect([present.nodeOf.get(later.id), present.byReference.get(later.reference.toLowerCase())]).toEqual([1, 1]);
  });

  it.each([1, 2, 3, 4, 5])('is after any changes what a fresh load gives (seed %i)', async (seed) => {
    const random = seeded(seed);
    const below = (count: number) => Math.floor(random() * count);
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client, `Random ${seed}`);
    const made: { id: string; kind: 'r' | 'd' | 't' }[] = [];
    for (const [collection, kind, count] of [
      [requirements, 'r', 8],
      [design, 'd', 4],
      [tests, 't', 5],
    ] as const)
      for (let i = 0; i < count; i++) made.push({ id: (await addItem(client, project, collection, `${kind}${i}`)).id, kind });
    const some = (kind: 'r' | 'd' | 't') => {
      const own = made.filter((one) => one.kind === kind);
      return own[below(own.length)]!.id;
    };
    const linkIds = async () => (await client.call(listLinks, { params: { project } })).id;
    const wishes: (() => Promise<unknown>)[] = [
      () => client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'satisfies', from: some('d'), to: some('r') }] } }),
      () => client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'verifies', from: some('t'), to: some('r') }] } }),
      () => client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'derives', from: some('r'), to: some('r') }] } }),
      async () => {
        const item = some(random() < 0.5 ? 'r' : 't');
        const revision = 1 + below(3);
        return client.call(editItem, { params: { project, item }, body: { revision, title: `Reworded ${below(1000)}` } });
      },
      () => client.call(moveItem, { params: { project, item: some('r') }, body: { parent: null, after: null } }),
      async () => {
        const ids = await linkIds();
        return ids.length && client.call(removeLinks, { params: { project }, body: { links: [ids[below(ids.length)]!] } });
      },
      async () => {
        const ids = await linkIds();
        return ids.length && client.call(confirmLinks, { params: { project }, body: { links: [ids[below(ids.length)]!] } });
      },
      () => client.call(withdrawItems, { params: { project }, body: { items: [some('t')] } }),
      () => client.call(restoreItems, { params: { project }, body: { items: [some('t')] } }),
      () => client.call(withdrawItems, { params: { project }, body: { items: [some('r')] } }),
      () => client.call(restoreItems, { params: { project }, body: { items: [some('r')] } }),
      () => client.call(withdrawItems, { params: { project }, body: { items: [some('d')] } }),
      () => client.call(restoreItems, { params: { project }, body: { items: [some('d')] } }),
      () => client.call(moveItem, { params: { project, item: some('r') }, body: { parent: some('r'), after: null } }),
      () => client.call(editItem, { params: { project, item: some('r') }, body: { revision: 1, kind: random() < 0.5 ? 'need' : 'information' } }),
      async () => {
        const kind = random() < 0.7 ? 'r' : 't';
        const parent = kind === 'r' && random() < 0.4 ? some('r') : null;
        const heading = random() < 0.2;
        const item = await addItem(client, project, kind === 'r' ? requirements : tests, `new ${below(1000)}`, { parent, heading });
        made.push({ id: item.id, kind });
      },
      () => client.call(createWaiver, { params: { project }, body: { item: some('r'), rule: 'tested', reason: 'Agreed for now' } }),
      () => client.call(undo, { params: { project } }),
      () => client.call(redo, { params: { project } }),
    ];
    let done = 0;
    for (let step = 0; step < 90; step++) {
      // Refusals (a link that exists, an old revision) are part of the game; they must change nothing.
      await wishes[below(wishes.length)]!().then(
        () => done++,
        (error: { code?: string }) => expect(error.code).toBeDefined(),
      );
      if (step === 25)
        await importThrough(
          client,
          project,
          'run.xml',
          Buffer.from(
            `<testsuite name="r">${[1, 2, 3].map((n) => `<testcase name="TC-00${n}">${n === 2 ? '<failure/>' : ''}</testcase>`).join('')}</testsuite>`,
          ),
          {},
        );
      // Whatever was computed once follows from there on.
      if (step % 3 === 0) await client.call(getReadiness, { params: { project } });
      if (step % 5 === 0) await client.call(getOutline, { params: { project } });
    }
    expect(done).toBeGreaterThan(15);
    const before = await readAll(client, project);
    await server.restart();
    expect(await readAll(server.client, project)).toEqual(before);
  });
});

describe('LinkIds', () => {
  const ids = ['01890000-0000-7000-8000-00000000000a', '01890000-0000-7000-8000-00000000000b'];
  const loaded = Buffer.concat(ids.map((id) => Buffer.from(id.replaceAll('-', ''), 'hex')));

  it('gives back the ids that were loaded and those made since', () => {
    const link = new LinkIds(loaded);
    link.add('new-one');
    expect([link.at(0), link.at(1), link.at(2)]).toEqual([...ids, 'new-one']);
    expect([link.find(ids[1]!), link.find('new-one'), link.find(ids[0]!.replace(/a$/, 'c'))]).toEqual([1, 2, undefined]);
    link.add('after-looking');
    expect(link.find('after-looking')).toBe(3);
  });
});
