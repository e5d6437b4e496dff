import {
  changeScheme,
  createItem,
  createLinks,
  explainCoverage,
  getItem,
  getReadiness,
  getScheme,
  getTrace,
  type Item,
  listLinks,
  listUsages,
  removeLinks,
  undo,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

/** Larkbeck weir and Otterby lock both use the drive, as a part of their gates. */
describe('an item that is used in several places', () => {
  const server = useServer();

  async function scene() {
    const { project, requirements, design, tests } = await makeProject(server.client);
    const make = (collection: string, kind: string, title: string, parent: string | null = null) =>
      server.client.call(createItem, { params: { project }, body: { collection, kind, title, parent } });
    const weir = await make(design, 'component', 'Weir');
    const lock = await make(design, 'component', 'Lock');
    const drive = await make(design, 'component', 'Drive');
    const motor = await make(design, 'component', 'Motor', drive.id);
    const weirDrive = await make(design, 'part', 'weir drive', weir.id);
    const lockDrive = await make(design, 'part', 'lock drive', lock.id);
    await addLink(server.client, project, 'typed', weirDrive, drive);
    await addLink(server.client, project, 'typed', lockDrive, drive);
    const one = await addItem(server.client, project, requirements, 'The drive closes against 4 m of water');
    const two = await addItem(server.client, project, requirements, 'The drive closes against 2 m of water');
    const test = await addItem(server.client, project, tests, 'Close');
    const inWeir = [weir.id, weirDrive.id, drive.id];
    const inLock = [lock.id, lockDrive.id, drive.id];
    return { project, drive, motor, one, two, test, inWeir, inLock, weir, lock };
  }
  const link = (project: string, linkKind: string, from: Item, to: Item, fromUsage?: string[], toUsage?: string[]) =>
    server.client.call(createLinks, {
      params: { project },
      body: { links: [{ linkKind, from: from.id, to: to.id, ...(fromUsage && { fromUsage }), ...(toUsage && { toUsage }) }] },
    });

  it('is found by every path of parts that leads down to it', async () => {
    const { project, drive, motor } = await scene();
    const says = async (item: string) => (await server.client.call(listUsages, { params: { project, item } })).usages.map((usage) => usage.says);
    expect((await says(drive.id)).sort()).toEqual(['Lock › lock drive › Drive', 'Weir › weir drive › Drive']);
    expect((await says(motor.id)).sort()).toEqual(['Lock › lock drive › Drive › Motor', 'Weir › weir drive › Drive › Motor']);
  });

  it('is linked in one usage only: the path is stored once, another usage is another link, and all are told apart', async () => {
    const { project, drive, one, inWeir, inLock } = await scene();
    await link(project, 'satisfies', drive, one, inWeir);
    await link(project, 'satisfies', drive, one, inLock);
    await expect(link(project, 'satisfies', drive, one, inWeir)).rejects.toMatchObject({ code: 'link-exists' });
    for (const restarted of [false, true]) {
      if (restarted) await server.restart();
      const sheet = await server.client.call(getItem, { params: { project, item: one.id } });
      expect(sheet.downstream.map(({ other, otherUsage, usage }) => [other.title, otherUsage, usage]).sort()).toEqual([
        ['Drive', 'Lock › lock drive › Drive', null],
        ['Drive', 'Weir › weir drive › Drive', null],
      ]);
      const columns = await server.client.call(listLinks, { params: { project }, query: {} });
      const used = columns.id.flatMap((_, at) => (columns.fromUsage[at]! < 0 ? [] : [columns.usages[columns.fromUsage[at]!]]));
      expect(used.sort()).toEqual(['Lock › lock drive › Drive', 'Weir › weir drive › Drive']);
      const { usages } = await server.client.call(listUsages, { params: { project, item: drive.id } });
      expect(usages.map(({ id, links }) => [id === null, links])).toEqual([
        [false, 1],
        [false, 1],
      ]);
    }
    // A link that holds in all usages says nothing new to neither, but more than both.
    await link(project, 'satisfies', drive, one);
    await expect(link(project, 'satisfies', drive, one, inWeir)).rejects.toMatchObject({ code: 'link-exists' });
  });

  it('is refused as used where it is not, with the item that is no part', async () => {
    const { project, drive, one, inWeir, weir, lock } = await scene();
    await expect(link(project, 'satisfies', drive, one, [lock.id, inWeir[1]!, drive.id])).rejects.toMatchObject({
      message: expect.stringContaining('no part of'),
    });
    await expect(link(project, 'satisfies', drive, one, [weir.id, inWeir[1]!])).rejects.toMatchObject({ message: expect.stringContaining('must end at it') });
  });

  it('must be covered in each usage where a rule says so, and the answer to "why?" is given for each', async () => {
    const { project, drive, one, test, inWeir, inLock } = await scene();
    const rule = {
      ...{ sort: 'rule' as const, key: 'tried', rank: 9, retired: false, revision: null },
      body: {
        ...{ label: 'Tried in each place', of: { kinds: ['component'] }, along: [{ linkKind: 'verifies', direction: 'in' as const }] },
        ...{ steps: 1, atLeast: 1, reach: { kinds: ['testCase'] }, throughUsages: true },
      },
    };
    await server.client.call(changeScheme, { params: { project }, body: { edits: [rule] } });
    const why = () => server.client.call(explainCoverage, { params: { project, rule: 'tried', item: drive.id } });
    await link(project, 'satisfies', drive, one, inLock);
    const { ids } = await link(project, 'verifies', test, drive, undefined, inWeir);
    expect((await why()).state).toBe('notMet');
    expect((await why()).usages.map(({ says, state, paths }) => [says, state, paths.length])).toEqual([
      ['Lock › lock drive › Drive', 'notMet', 0],
      ['Weir › weir drive › Drive', 'met', 1],
    ]);
    expect((await why()).sentence).toContain('in each of its usages');
    await link(project, 'verifies', test, drive, undefined, inLock);
    expect((await why()).state).toBe('met');
    await server.restart();
    expect((await why()).state).toBe('met');
    const met = async () => (await server.client.call(getReadiness, { params: { project } })).rules.find((one) => one.rule === 'tried')!.counts.met;
    expect(await met()).toBe(1);
    await server.client.call(removeLinks, { params: { project }, body: { links: [ids[0]!] } });
    expect(await met()).toBe(0);
    await server.client.call(undo, { params: { project } });
    expect(await met()).toBe(1);
  });

  it('lets paths go on only in the usage in which they came', async () => {
    const { project, drive, one, two, test, inWeir, inLock } = await scene();
    await link(project, 'satisfies', drive, one, inWeir);
    await link(project, 'verifies', test, drive, undefined, inLock);
    const downstream = async (item: Item) => {
      const { down } = await server.client.call(getTrace, { params: { project, item: item.id } });
      return down.map(([node]) => node);
    };
    expect(await downstream(one)).not.toContain(test.node);
    await link(project, 'satisfies', drive, two);
    expect(await downstream(two)).toContain(test.node);
  });

  it('stays as it was read as of an earlier change, and its scheme says so', async () => {
    const { project, drive, one, inWeir } = await scene();
    const { seq } = await server.client.call(getScheme, { params: { project } });
    await link(project, 'satisfies', drive, one, inWeir);
    const then = await fetch(`${server.address}/api/projects/${project}/items/${drive.id}/usages?asOf=${seq}`).then(
      async (reply) => (await reply.json()) as { usages: { id: string | null }[] },
    );
    expect(then.usages.every((usage) => usage.id === null)).toBe(true);
    const now = await server.client.call(listUsages, { params: { project, item: drive.id } });
    expect(now.usages.filter((usage) => usage.id !== null)).toHaveLength(1);
  });
});
