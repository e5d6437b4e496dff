import { createItem, createLinks, type Item } from '@coomb/contract';
import type { Client } from '../cli/client.js';
import { addItem, addLink, makeProject } from './test-server.js';

/** Larkbeck weir and Otterby lock both use the drive, as a part of their gates. */
export async function driveInTwoPlaces(client: Client) {
  const { project, requirements, design, tests } = await makeProject(client);
  const make = (collection: string, kind: string, title: string, parent: string | null = null) =>
    client.call(createItem, { params: { project }, body: { collection, kind, title, parent } });
  const weir = await make(design, 'component', 'Weir');
  const lock = await make(design, 'component', 'Lock');
  const drive = await make(design, 'component', 'Drive');
  const motor = await make(design, 'component', 'Motor', drive.id);
  const weirDrive = await make(design, 'part', 'weir drive', weir.id);
  const lockDrive = await make(design, 'part', 'lock drive', lock.id);
  await addLink(client, project, 'typed', weirDrive, drive);
  await addLink(client, project, 'typed', lockDrive, drive);
  const one = await addItem(client, project, requirements, 'The drive closes against 4 m of water');
  const two = await addItem(client, project, requirements, 'The drive closes against 2 m of water');
  const test = await addItem(client, project, tests, 'Close');
  const inWeir = [weir.id, weirDrive.id, drive.id];
  const inLock = [lock.id, lockDrive.id, drive.id];
  return { project, requirements, make, design, drive, motor, one, two, test, inWeir, inLock, weir, lock };
}

/** Makes links whose ends hold in one usage only, where a path is given. */
export const linkerOf = (client: Client) => (project: string, linkKind: string, from: Item, to: Item, fromUsage?: string[], toUsage?: string[]) =>
  client.call(createLinks, {
    params: { project },
    body: { links: [{ linkKind, from: from.id, to: to.id, ...(fromUsage && { fromUsage }), ...(toUsage && { toUsage }) }] },
  });
