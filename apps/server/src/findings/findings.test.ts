import {
  createLinks,
  createSet,
  editItem,
  getProject,
  giveErrands,
  listErrands,
  listFindings,
  mendFindings,
  mergeSets,
  settleErrands,
  trendFindings,
  undo,
  waiveFindings,
  withdrawItems,
} from '@coomb/contract';
import { consistencyRules } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import type { Client } from '../cli/client.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('findings', () => {
  const server = useServer();
  const list = (client: Client, project: string, query: object = {}) => client.call(listFindings, { params: { project }, query });
  const say = async (client: Client, project: string, query: object = {}) =>
    (await list(client, project, query)).findings.map(({ rule, item, says }) => `${rule}: ${item.reference} ${says}`);

  it('are what rules of coverage, evidence and links find, by rule, in reading order', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Level');
    const flow = await addItem(client, project, requirements, 'Flow');
    const gate = await addItem(client, project, design, 'Gate');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'satisfies', gate, level);
    await addLink(client, project, 'verifies', test, level);
    await addLink(client, project, 'derives', level, flow);
    await addLink(client, project, 'derives', flow, level);
    await client.call(editItem, { params: { project, item: gate.id }, body: { revision: 1, title: 'Gates' } });
    expect(await say(client, project)).toEqual([
      'suspect: DES-001 changed since it was confirmed that it satisfies REQ-001',
      'both-ways: REQ-002 is derived from REQ-001, and the other way round too',
    ]);
    const { rules, total } = await list(client, project);
    expect(total).toBe(2);
    expect(rules.map(({ id }) => id)).toEqual(expect.arrayContaining(['gap:tested', 'evidence:failing', 'suspect', ...consistencyRules.map(({ id }) => id)]));
    await client.call(withdrawItems, { params: { project }, body: { items: [test.id] } });
    expect(await say(client, project, { rule: 'gap:tested' })).toEqual(['gap:tested: REQ-001 misses “Tested”', 'gap:tested: REQ-002 misses “Tested”']);
    expect(await say(client, project, { rule: 'gap:tested', words: 'flow' })).toHaveLength(1);
    expect(await say(client, project, { offset: 1, limit: 1 })).toHaveLength(1);
    expect((await list(client, project, { collection: design })).findings.every(({ item }) => item.collection === design)).toBe(true);
  });

  it('are mended in one step, all or none, and undone as one', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Level');
    const flow = await addItem(client, project, requirements, 'Flow');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'verifies', test, level);
    await addLink(client, project, 'verifies', test, flow);
    await client.call(withdrawItems, { params: { project }, body: { items: [level.id, flow.id] } });
    const { findings } = await list(client, project, { rule: 'end-withdrawn' });
    expect(findings.map(({ says }) => says)).toEqual(['verifies REQ-001, which is withdrawn', 'verifies REQ-002, which is withdrawn']);
    expect(findings[0]!.mendings.map(({ label }) => label)).toEqual(['Remove the link', 'Restore REQ-001']);
    const [first, second] = findings.map(({ key }) => key) as [string, string];
    const mend = (steps: { key: string; sort: 'removeLink' | 'restoreItem' | 'letGo' }[]) =>
      client.call(mendFindings, { params: { project }, body: { findings: steps } });
    await expect(
      mend([
        { key: first, sort: 'removeLink' },
        { key: second, sort: 'letGo' },
      ]),
    ).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(mend([{ key: 'end-withdrawn:nothing', sort: 'removeLink' }])).rejects.toMatchObject({ code: 'changed-meanwhile' });
    expect(await say(client, project, { rule: 'end-withdrawn' })).toHaveLength(2);
    await mend([
      { key: first, sort: 'removeLink' },
      { key: second, sort: 'restoreItem' },
    ]);
    expect(await say(client, project, { rule: 'end-withdrawn' })).toEqual([]);
    await client.call(undo, { params: { project } });
    expect((await list(client, project, { rule: 'end-withdrawn' })).findings.map(({ key }) => key)).toEqual([first, second]);
  });

  it('are accepted with a reason, by whom agreed and until when; a waiver that ran out is none', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const [a, b] = [await addItem(client, project, requirements, 'Level'), await addItem(client, project, requirements, 'Flow')];
    await addLink(client, project, 'derives', a, b);
    await addLink(client, project, 'derives', b, a);
    const keys = (await list(client, project)).findings.filter(({ rule, item }) => rule === 'both-ways' || (rule === 'gap:tested' && item.id === a.id));
    expect(keys).toHaveLength(2);
    const waive = (until: string | null) =>
      client.call(waiveFindings, {
        params: { project },
        body: { findings: keys.map(({ key }) => key), reason: 'Agreed at the review', approver: 'Ewan Reed', until },
      });
    await waive('2020-01-01');
    expect((await list(client, project)).findings.filter(({ key }) => keys.some((one) => one.key === key))).toHaveLength(2);
    await waive(null);
    const { findings, rules } = await list(client, project, { state: 'waived' });
    expect(findings.map(({ rule, waiver }) => [rule, waiver?.reason, waiver?.approver])).toEqual([
      ['gap:tested', 'Agreed at the review', 'Ewan Reed'],
      ['both-ways', 'Agreed at the review', 'Ewan Reed'],
    ]);
    expect(rules.find(({ id }) => id === 'gap:tested')).toMatchObject({ open: 1, waived: 1 });
    await client.call(undo, { params: { project } });
    expect((await list(client, project, { state: 'waived' })).total).toBe(0);
  });

  it('are handed on to a person, and are in one hand at a time', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    await addItem(client, project, requirements, 'Level');
    const [finding] = (await list(client, project, { rule: 'gap:tested' })).findings;
    const give = (from: string, owner: string) =>
      server.as(from).call(giveErrands, {
        params: { project },
        body: { sort: 'mend', owner, note: 'by Friday', about: [{ item: finding!.item.id, finding: finding!.key }] },
      });
    await give('Ada Wick', 'Ewan Reed');
    expect((await list(server.as('Ewan Reed'), project, { state: 'mine' })).findings.map(({ errand }) => [errand?.owner, errand?.giver, errand?.note])).toEqual(
      [['Ewan Reed', 'Ada Wick', 'by Friday']],
    );
    expect((await list(client, project, { state: 'mine' })).total).toBe(0);
    const elsewhere = { sort: 'look' as const, owner: 'Ida Moss', about: [{ item: finding!.item.id, link: '01890000-0000-7000-8000-000000000009' }] };
    await expect(client.call(giveErrands, { params: { project }, body: elsewhere })).rejects.toMatchObject({ code: 'not-found' });
    await give('Ewan Reed', 'Ada Wick');
    const errands = await client.call(listErrands, { params: { project }, query: {} });
    expect(errands.map(({ owner, about }) => `${owner} ${about.reference}`)).toEqual(['Ada Wick REQ-001']);
    await client.call(settleErrands, { params: { project }, body: { errands: [errands[0]!.id], done: true } });
    expect((await list(client, project, { state: 'taken' })).total).toBe(0);
    expect(await client.call(listErrands, { params: { project }, query: { done: 'all' } })).toHaveLength(1);
    await server.restart();
    expect(await server.client.call(listErrands, { params: { project }, query: {} })).toEqual([]);
  });

  it('tell of ends that moved to another collection since the link was confirmed, until it is confirmed there', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const set = await client.call(createSet, { params: { project }, body: { name: 'Lock', starter: 'needsToTests', initials: 'LK' } });
    const { collections } = await client.call(getProject, { params: { project } });
    const own = collections.find((one) => one.set === set.id && one.kind === 'requirement')!;
    const level = await addItem(client, project, own.id, 'Level');
    await addItem(client, project, requirements, 'Flow');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'verifies', test, level);
    await client.call(mergeSets, { params: { project, set: set.id }, body: { into: null } });
    const [moved] = (await list(client, project, { rule: 'end-moved' })).findings;
    expect(moved).toMatchObject({ item: { reference: level.reference }, says: `moved from ${own.name} to Requirements; is verified by TC-001` });
    await client.call(mendFindings, { params: { project }, body: { findings: [{ key: moved!.key, sort: 'confirmLink' }] } });
    expect((await list(client, project, { rule: 'end-moved' })).total).toBe(0);
  });

  it('tell of items that say nearly the same, until one says something else or they are linked', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const html = '<p>The gate drive shall stop within one second after the stop order.</p>';
    const one = await addItem(client, project, requirements, 'Stop on order', { html });
    await addItem(client, project, requirements, 'Level', { html: '<p>The pool level stays within its band on every day.</p>' });
    const other = await addItem(client, project, requirements, 'Order to stop', { html: html.replace('one second', 'a second') });
    await addItem(client, project, tests, 'Stop on order', { html });
    const twins = () => say(client, project, { rule: 'said-again' });
    expect(await twins()).toEqual([expect.stringMatching(/^said-again: REQ-003 says nearly what REQ-001 says: \d\d %/)]);
    await addLink(client, project, 'derives', other, one);
    expect(await twins()).toEqual([]);
    await client.call(undo, { params: { project } });
    expect(await twins()).toHaveLength(1);
    await client.call(editItem, { params: { project, item: other.id }, body: { revision: 1, html: '<p>The lamp shows green when the lock is ready.</p>' } });
    expect(await twins()).toEqual([]);
  });

  it('tell of a link for which far less speaks than for others of its kind, until it is removed or somebody says that it is right', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const parts = ['gate', 'sluice', 'siren', 'lamp', 'gauge', 'pump', 'crane', 'ladder', 'boom', 'winch', 'fence', 'camera'];
    const acts = ['corrosion', 'vibration'];
    const wished: (Awaited<ReturnType<typeof addItem>> & { said: string })[] = [];
    for (const part of parts)
      for (const act of acts)
        wished.push({
          ...(await addItem(client, project, requirements, `${part} ${act}`, { html: `<p>The ${part} withstands ${act}.</p>` })),
          said: `${part} ${act}`,
        });
    const checks: Awaited<ReturnType<typeof addItem>>[] = [];
    for (const { said } of wished) checks.push(await addItem(client, project, tests, `Try ${said}`, { html: `<p>Expose to ${said}.</p>` }));
    for (const [at, check] of checks.entries()) await addLink(client, project, 'verifies', check, wished[at]!);
    const doubtful = () => say(client, project, { rule: 'little-speaks-for' });
    expect(await doubtful()).toEqual([]);
    const stray = await addItem(client, project, tests, 'Boats moor', { html: '<p>Crews tie up below the weir.</p>' });
    await addLink(client, project, 'verifies', stray, wished[1]!);
    const [found] = (await list(client, project, { rule: 'little-speaks-for' })).findings;
    expect(await doubtful()).toEqual([expect.stringMatching(/REQ-002|TC-025/)]);
    expect(found!.says).toMatch(/though more speaks for \d+ % of “/);
    expect(found!.mendings.map(({ sort }) => sort)).toEqual(['removeLink']);
    await client.call(waiveFindings, { params: { project }, body: { findings: [found!.key], reason: 'Seen on site' } });
    expect(await doubtful()).toEqual([]);
    expect(await say(client, project, { rule: 'little-speaks-for', state: 'waived' })).toHaveLength(1);
    await client.call(mendFindings, { params: { project }, body: { findings: [{ key: found!.key, sort: 'removeLink' }] } });
    expect(await say(client, project, { rule: 'little-speaks-for', state: 'waived' })).toEqual([]);
  });

  it('have a trend over the changes', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    for (let at = 0; at < 4; at++) await addItem(client, project, requirements, `Wish ${at}`);
    const trend = await client.call(trendFindings, { params: { project }, query: { points: 4 } });
    const open = trend.map(({ open }) => open.coverage);
    expect(open).toEqual(open.toSorted((a, b) => a - b));
    expect(open.at(-1)).toBe((await list(client, project)).rules.filter(({ group }) => group === 'coverage').reduce((sum, { open: one }) => sum + one, 0));
    expect(open[0]).toBe(0);
  });

  it('are asked as of an earlier change, too', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const [a, b] = [await addItem(client, project, requirements, 'Level'), await addItem(client, project, requirements, 'Flow')];
    await addLink(client, project, 'derives', a, b);
    const { seq } = await client.call(createLinks, { params: { project }, body: { links: [{ linkKind: 'derives', from: b.id, to: a.id }] } });
    await client.call(undo, { params: { project } });
    const find = async (asOf: number) => {
      const url = `${server.address}/api/projects/${project}/findings?rule=both-ways&asOf=${asOf}`;
      return ((await (await fetch(url, { headers: { 'X-Coomb-Person': 'Ada' } })).json()) as { total: number }).total;
    };
    expect([await find(seq - 1), await find(seq), await find(seq + 1)]).toEqual([0, 1, 0]);
  });
});
