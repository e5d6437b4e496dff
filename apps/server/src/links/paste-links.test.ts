import { getItem, listFindings, pasteLinks, queryLinks, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('pasted links', () => {
  const server = useServer();
  const setUp = async () => {
    const { client } = server;
    const made = await makeProject(client);
    const { project } = made;
    const level = await addItem(client, project, made.requirements, 'Level');
    const flow = await addItem(client, project, made.requirements, 'Flow');
    const opens = await addItem(client, project, made.tests, 'Opens');
    await addItem(client, project, made.tests, 'Closes');
    const paste = (text: string, more: object = {}) => client.call(pasteLinks, { params: { project }, body: { text, ...more } });
    const say = async (text: string, more: object = {}) =>
      (await paste(text, { dryRun: true, ...more })).rows.map(({ line, outcome, says }) => `${line} ${outcome}: ${says}`);
    const links = async () =>
      (await client.call(queryLinks, { params: { project }, query: {} })).rows.map(({ from, kind, to }) => `${from.reference} ${kind} ${to.reference}`);
    return { ...made, client, level, flow, opens, paste, say, links };
  };

  it('say what becomes of every row before anything is stored', async () => {
    const { client, project, level, opens, say, links } = await setUp();
    await addLink(client, project, 'verifies', opens, level);
    expect(
      await say(
        'Test\tRequirement\nTC-001\tREQ-001\nTC-001\tREQ-002\nTC-002\treq-001, REQ-002\nTC-002\tREQ-002\nTC-001\tTC-002\nREQ-001\tREQ-002\nTC-009\tREQ-001',
      ),
    ).toEqual([
      '2 stands: TC-001 verifies REQ-001 already.',
      '3 makes: TC-001 verifies REQ-002',
      '4 makes: TC-002 verifies REQ-001',
      '4 makes: TC-002 verifies REQ-002',
      '5 stands: it stands in the cells twice',
      '6 refused: no kind of link joins them',
      '7 asks: several kinds could be meant: is derived from, leads to',
      '8 unknown: there is no TC-009; choose a kind of link, and REQ-001 can wait for it',
    ]);
    expect(await links()).toEqual(['TC-001 verifies REQ-001']);
  });

  it('make all that may be made as one undo; kinds are said in the cells or chosen for all', async () => {
    const { client, project, paste, links } = await setUp();
    expect(await paste('REQ-001;is verified by;TC-001\nREQ-002;is derived from;REQ-001')).toMatchObject({ shape: 'pairs', counts: { makes: 2 } });
    expect(await links()).toEqual(['REQ-002 derives REQ-001', 'TC-001 verifies REQ-001']);
    await client.call(undo, { params: { project } });
    expect(await links()).toEqual([]);
    await paste('REQ-001\tREQ-002', { linkKind: 'derives', reversed: true });
    expect(await links()).toEqual(['REQ-002 derives REQ-001']);
    await expect(paste('REQ-001\tREQ-002', { linkKind: 'imagines' })).rejects.toMatchObject({ code: 'input-invalid' });
  });

  it('are taken from a matrix with marks, too', async () => {
    const { paste, links } = await setUp();
    expect(await paste('\tREQ-001\tREQ-002\nTC-001\tx\t\nTC-002\tx\tx\n')).toMatchObject({ shape: 'matrix', counts: { makes: 3 } });
    expect(await links()).toHaveLength(3);
  });

  it('let an item wait for one that is not there yet, once, and only where asked', async () => {
    const { client, project, level, say, paste } = await setUp();
    const text = 'TC-077\tREQ-001\nTC-078\tREQ-999';
    expect(await say(text, { linkKind: 'verifies' })).toEqual([
      '1 unknown: there is no TC-077; REQ-001 could wait for it',
      '2 unknown: neither TC-078 nor REQ-999 is there',
    ]);
    await paste(text, { linkKind: 'verifies', wait: true });
    const { waiting } = await client.call(getItem, { params: { project, item: level.id } });
    expect(waiting.map(({ phrase, target }) => `${phrase} ${target}`)).toEqual(['is verified by TC-077']);
    expect(await say(text, { linkKind: 'verifies', wait: true })).toContain('1 stands: REQ-001 waits for TC-077 already');
    await importThrough(client, project, 'more.csv', Buffer.from('Reference,Title,Kind\nTC-077,Drains,Test case\n'), {
      collection: { name: 'More tests', prefix: 'TC', holds: 'tests' },
    });
    expect((await client.call(getItem, { params: { project, item: level.id } })).downstream.map(({ phrase, other }) => `${phrase} ${other.title}`)).toEqual([
      'is verified by Drains',
    ]);
    await client.call(undo, { params: { project } });
    const { findings } = await client.call(listFindings, { params: { project }, query: { rule: 'waits-for-end' } });
    expect(findings.map(({ says }) => says)).toEqual(['is verified by TC-077, which has not come']);
  });

  it('refuse what is no text of cells', async () => {
    const { paste } = await setUp();
    await expect(paste(' \n ')).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(paste('a\u0000b')).rejects.toMatchObject({ code: 'input-invalid' });
    expect(await paste('nothing of use')).toMatchObject({ rows: [], passed: [{ line: 1 }], counts: { makes: 0 } });
  });
});
