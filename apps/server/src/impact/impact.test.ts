import { readImpact, withdrawItems } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('impact before a change', () => {
  const server = useServer();

  it('says what rests on items and what they rest on, with the way, and what would turn stale', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const top = await addItem(client, project, requirements, 'Top');
    const level = await addItem(client, project, requirements, 'Level');
    const gate = await addItem(client, project, design, 'Gate');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'derives', level, top);
    await addLink(client, project, 'satisfies', gate, level);
    await addLink(client, project, 'verifies', test, level);
    const run = `<testsuite name="s"><testcase name="${test.reference} Opens"/></testsuite>`;
    await importThrough(client, project, 'run.xml', Buffer.from(run), {});
    const impact = (items: string[], more: object = {}) => client.call(readImpact, { params: { project }, body: { items, ...more } });
    const found = await impact([top.reference]);
    const say = ({ items }: (typeof found)['upstream']) =>
      items.map(
        ({ item, distance, paths, way }) => `${item.reference} ${distance} ${paths} ${way.map(({ phrase, reference }) => `${phrase} ${reference}`).join(', ')}`,
      );
    expect(found.upstream.items).toEqual([]);
    expect(say(found.downstream)).toEqual([
      'REQ-002 1 1 leads to REQ-002',
      'DES-001 2 1 leads to REQ-002, is satisfied by DES-001',
      'TC-001 2 1 leads to REQ-002, is verified by TC-001',
    ]);
    expect(found.suspect).toBe(1);
    const ofLevel = await impact([level.id]);
    expect(ofLevel.stale.map(({ item, becomes }) => [item.reference, item.state, becomes])).toEqual([
      ['REQ-001', 'verified', 'stale'],
      ['REQ-002', 'verified', 'stale'],
    ]);
    expect((await impact([level.id])).stale).toEqual(ofLevel.stale);
    expect(say((await impact([top.id], { kinds: ['derives'] })).downstream)).toHaveLength(1);
    expect(say((await impact([top.id], { most: 1 })).downstream)).toHaveLength(1);
    await client.call(withdrawItems, { params: { project }, body: { items: [level.id] } });
    expect((await impact([top.id])).downstream.total).toBe(0);
    await expect(impact(['REQ-999'])).rejects.toMatchObject({ code: 'not-found' });
  });
});
