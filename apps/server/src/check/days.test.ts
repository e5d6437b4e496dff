import { buildUrl, createWaiver, getItem, getReadiness, live, openFigure } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { dayOf, systemClock } from '../http/clock.js';
import { ProjectStates } from '../project-state/project-states.js';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

describe('the days', () => {
  let now = new Date('2026-11-27T22:00:00');
  const server = useServer({ clock: { ...systemClock, now: () => now } });

  it('end waivers by themselves, on every open page', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const item = await addItem(client, project, requirements, 'The gate shall close');
    await client.call(createWaiver, { params: { project }, body: { item: item.id, rule: 'tested', reason: 'Agreed', until: '2026-11-27' } });
    const look = async () => {
      const { rules } = await client.call(getReadiness, { params: { project } });
      const { coverage, waivers } = await client.call(getItem, { params: { project, item: item.id } });
      const { waived, notMet } = rules.find(({ rule }) => rule === 'tested')!.counts;
      return [waived, notMet, coverage.find(({ rule }) => rule === 'tested')!.state, waivers[0]!.active];
    };
    expect(await look()).toEqual([1, 0, 'waived', true]);

    const line = await fetch(server.address + buildUrl(live.path, { project }, { person: 'Ben Hale' }), { headers: { Accept: 'text/event-stream' } });
    const reader = line.body!.getReader();
    let heard = '';
    const hear = async (what: string) => {
      while (!heard.includes(what)) heard += Buffer.from((await reader.read()).value!).toString();
    };
    await hear('hello');
    now = new Date('2026-11-28T00:00:10');
    server.part(ProjectStates).followDay();
    await hear('"type":"day","day":"2026-11-28"');
    await reader.cancel();
    expect(await look()).toEqual([0, 1, 'notMet', false]);
    expect((await client.call(openFigure, { params: { project, figure: 'rule:tested:notMet' } })).items.map(({ id }) => id)).toContain(item.id);
  });

  it('are seen by whoever asks first, without anybody looking on', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const item = await addItem(client, project, requirements, 'The gate shall lock');
    await client.call(createWaiver, { params: { project }, body: { item: item.id, rule: 'tested', reason: 'Agreed', until: '2026-12-31' } });
    now = new Date('2027-01-01T00:00:00');
    const { rules } = await client.call(getReadiness, { params: { project } });
    expect(rules.find(({ rule }) => rule === 'tested')!.counts.waived).toBe(0);
  });

  it('begin at midnight where the server stands', () => {
    expect([dayOf(new Date(2026, 10, 27, 0, 0, 0)), dayOf(new Date(2026, 10, 27, 23, 59, 59))]).toEqual(['2026-11-27', '2026-11-27']);
  });
});
