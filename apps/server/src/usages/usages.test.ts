import {
  addFields,
  changeScheme,
  confirmLinks,
  explainCoverage,
  getItem,
  getLinkDifference,
  getReadiness,
  getScheme,
  getTrace,
  type Item,
  type ItemSheet,
  listLinks,
  listUsages,
  listUsed,
  listUses,
  removeLinks,
  queryLinks,
  setInUsage,
  undo,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { driveInTwoPlaces, linkerOf } from '../testing/drive-in-two-places.js';
import { triedInEachPlace } from '../testing/tried-rule.js';
import { addLink, useServer } from '../testing/test-server.js';

/** Larkbeck weir and Otterby lock both use the drive, as a part of their gates. */
describe('an item that is used in several places', () => {
  const server = useServer();

  const scene = () => driveInTwoPlaces(server.client);
  const link = (...wanted: Parameters<ReturnType<typeof linkerOf>>) => linkerOf(server.client)(...wanted);

  it('is found by every path of parts that leads down to it', async () => {
    const { project, drive, motor } = await scene();
    const says = async (item: string) => (await server.client.call(listUsages, { params: { project, item } })).usages.map((usage) => usage.says);
    expect((await says(drive.id)).sort()).toEqual(['Lock › lock drive › Drive', 'Weir › weir drive › Drive']);
    expect((await says(motor.id)).sort()).toEqual(['Lock › lock drive › Motor', 'Weir › weir drive › Motor']);
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
      const inUse = await server.client.call(queryLinks, { params: { project }, query: { use: 'Lock › lock drive › Drive' } });
      expect(inUse.rows.map(({ fromUse }) => fromUse)).toEqual(['Lock › lock drive › Drive']);
      expect(inUse.counts.use.map(({ id, count }) => [id, count]).sort()).toEqual([
        ['Lock › lock drive › Drive', 1],
        ['Weir › weir drive › Drive', 1],
      ]);
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
    await server.client.call(changeScheme, { params: { project }, body: { edits: [triedInEachPlace] } });
    const why = () => server.client.call(explainCoverage, { params: { project, rule: 'tried', item: drive.id } });
    await link(project, 'satisfies', drive, one, inLock);
    const { ids } = await link(project, 'verifies', test, drive, undefined, inWeir);
    expect((await why()).state).toBe('notMet');
    expect((await why()).usages.map(({ says, state, paths }) => [says, state, paths.length])).toEqual([
      ['Weir › weir drive › Drive', 'met', 1],
      ['Lock › lock drive › Drive', 'notMet', 0],
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

  it('asks in every usage as soon as something holds in one, and follows what is built in and taken out', async () => {
    const { project, make, design, drive, test, inWeir } = await scene();
    await server.client.call(changeScheme, { params: { project }, body: { edits: [triedInEachPlace] } });
    const why = () => server.client.call(explainCoverage, { params: { project, rule: 'tried', item: drive.id } });
    const states = async () => (await why()).usages.map(({ says, state }) => `${says}: ${state}`).sort();
    await link(project, 'verifies', test, drive, undefined, inWeir);
    expect(await states()).toEqual(['Lock › lock drive › Drive: notMet', 'Weir › weir drive › Drive: met']);
    const ford = await make(design, 'component', 'Ford');
    const fordDrive = await make(design, 'part', 'ford drive', ford.id);
    const typed = await addLink(server.client, project, 'typed', fordDrive, drive);
    expect(await states()).toEqual(['Ford › ford drive › Drive: notMet', 'Lock › lock drive › Drive: notMet', 'Weir › weir drive › Drive: met']);
    await server.client.call(removeLinks, { params: { project }, body: { links: [typed] } });
    expect(await states()).toHaveLength(2);
    const sheet = (use?: string[]) => server.client.call(getItem, { params: { project, item: drive.id }, query: { ...(use && { use: use.join() }) } });
    const tried = ({ coverage }: ItemSheet) => coverage.find(({ rule }) => rule === 'tried')!.state;
    expect([tried(await sheet()), tried(await sheet(inWeir))]).toEqual(['notMet', 'met']);
  });

  it('holds wherever the path ends with it: a drive of the gate, wherever the gate is used', async () => {
    const { project, make, design, weir, drive, one, test, inWeir } = await scene();
    const site = await make(design, 'component', 'Site');
    const siteWeir = await make(design, 'part', 'the weir', site.id);
    await addLink(server.client, project, 'typed', siteWeir, weir);
    await link(project, 'satisfies', drive, one, inWeir);
    const { usages } = await server.client.call(listUsages, { params: { project, item: drive.id } });
    expect(usages.map(({ says, links, gone }) => [says, links, gone]).sort()).toEqual([
      ['Lock › lock drive › Drive', 0, false],
      ['Site › the weir › weir drive › Drive', 1, false],
    ]);
    const path = [site.id, siteWeir.id, weir.id, inWeir[1]!].join();
    const { uses } = await server.client.call(listUses, { params: { project }, query: { path: [site.id, siteWeir.id, weir.id].join() } });
    const { at } = await server.client.call(listUses, { params: { project }, query: { path: `${path},${drive.id}` } });
    expect(uses.map(({ item, here }) => [item.title, here])).toEqual([['weir drive', 1]]);
    expect([at.here, at.elsewhere]).toEqual([1, 0]);
    // Tests and needs meet where one path ends with the other.
    await link(project, 'verifies', test, drive, undefined, [site.id, siteWeir.id, ...inWeir]);
    const { down } = await server.client.call(getTrace, { params: { project, item: one.id } });
    expect(down.map(([node]) => node)).toContain(test.node);
  });

  it('may say what fields are there and nowhere else; others that did so meanwhile are not overwritten', async () => {
    const { project, drive, inWeir, inLock } = await scene();
    await server.client.call(addFields, { params: { project }, body: { fields: [{ kind: 'component', label: 'Mass', type: 'number', unit: 'kg' }] } });
    const set = (path: string[], fields: Record<string, number | string | null>, revision = 0) =>
      server.client.call(setInUsage, { params: { project }, body: { path, fields, revision } });
    await set(inWeir, { mass: 120 });
    await set(inLock, { mass: 80 });
    const told = async () => {
      const { usages } = await server.client.call(listUsages, { params: { project, item: drive.id } });
      return Object.fromEntries(usages.map(({ says, fields }) => [says, fields.mass]));
    };
    expect(await told()).toEqual({ 'Weir › weir drive › Drive': 120, 'Lock › lock drive › Drive': 80 });
    await server.restart();
    expect(await told()).toEqual({ 'Weir › weir drive › Drive': 120, 'Lock › lock drive › Drive': 80 });
    await expect(set(inLock, { mass: 90 }, 7)).rejects.toMatchObject({ code: 'changed-meanwhile' });
    await expect(set(inLock, { mass: 'heavy' }, 1)).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(set(inLock, { speed: 3 }, 1)).rejects.toMatchObject({ message: expect.stringContaining('no such field') });
    await set(inLock, { mass: null }, 1);
    expect(await told()).toEqual({ 'Weir › weir drive › Drive': 120, 'Lock › lock drive › Drive': undefined });
    await server.client.call(undo, { params: { project } });
    expect((await told())['Lock › lock drive › Drive']).toBe(80);
    const { items } = await server.client.call(listUsed, { params: { project } });
    expect(items.map(({ node, usages }) => [node, usages.length])).toEqual([[drive.node, 2]]);
  });

  it('makes links suspect that hold where a value changed, and those only, with the value then and now', async () => {
    const { project, make, design, drive, one, two, test, inWeir, inLock } = await scene();
    const travel = await make(design, 'value', 'travel', drive.id);
    const [weirTravel, lockTravel] = [
      [...inWeir, travel.id],
      [...inLock, travel.id],
    ];
    const set = (path: string[], amount: string | null, revision: number) =>
      server.client.call(setInUsage, { params: { project }, body: { path, fields: { amount }, revision } });
    const made = async (...wanted: Parameters<typeof link>) => (await link(...wanted)).ids[0]!;
    await set(weirTravel, '2.4 m', 0);
    const names = {
      weir: await made(project, 'satisfies', travel, one, weirTravel),
      lock: await made(project, 'satisfies', travel, one, lockTravel),
      everywhere: await made(project, 'satisfies', travel, two),
    };
    const suspect = async () => {
      const links = await server.client.call(listLinks, { params: { project }, query: {} });
      return Object.entries(names).flatMap(([name, id]) => (links.suspect[links.id.indexOf(id)] ? [name] : []));
    };
    const difference = async (id: string) => {
      const { ends } = await server.client.call(getLinkDifference, { params: { project, link: id } });
      return ends.map(({ item, words, changedBy }) => [
        item.title,
        changedBy,
        words.flatMap(({ text, type }) => (type === 'same' ? [] : [`${type} ${text.trim()}`])),
      ]);
    };
    // Made after the value came to be: they hold against it.
    expect(await suspect()).toEqual([]);
    await set(weirTravel, '2.6 m', 1);
    for (const restarted of [false, true]) {
      if (restarted) await server.restart();
      expect(await suspect()).toEqual(['weir', 'everywhere']);
      expect(await difference(names.weir)).toEqual([['travel', 'Ada Wick', ['removed 2.4', 'added 2.6']]]);
      expect(await difference(names.lock)).toEqual([]);
    }
    await server.client.call(undo, { params: { project } });
    expect(await suspect()).toEqual([]);
    await set(weirTravel, '2.8 m', 3);
    await server.client.call(confirmLinks, { params: { project }, body: { links: [names.weir] } });
    expect(await suspect()).toEqual(['everywhere']);
    // A link that is made in another use beside it, or in one that nothing was said of yet, is not suspect from the beginning.
    await made(project, 'verifies', test, travel, undefined, lockTravel);
    const { downstream } = await server.client.call(getItem, { params: { project, item: travel.id }, query: {} });
    expect(downstream.filter(({ other, suspect }) => other.id === test.id && suspect)).toEqual([]);
    // What says the same again, and what bears no meaning, changes nothing.
    await set(lockTravel, null, 1);
    expect(await suspect()).toEqual(['everywhere']);
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
