import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { buildClient } from '../client.js';
import { type Command, type CommandIo, exitCodes, UsageError } from '../command.js';
import { seedDemo } from '../demo/seed-demo.js';
import { type RunningServer, startServer } from '../../start-server.js';
import { listProjects } from '@coomb/contract';
import { existsSync, rmSync } from 'node:fs';
import { usualCopiesFolder } from '../../database/data-folder.js';
import { lockFolder } from '../../database/folder-lock.js';
import { isLoopback } from '../../http/allowed-hosts.js';

const web = fileURLToPath(new URL('../../../../web/dist', import.meta.url));
const demoFiles = fileURLToPath(new URL('../../../../../demo/files/', import.meta.url));

const serverOptions = {
  port: { type: 'string' },
  host: { type: 'string' },
  name: { type: 'string', multiple: true },
  open: { type: 'boolean' },
  data: { type: 'string' },
  copies: { type: 'string' },
  'copies-to': { type: 'string' },
  'copies-every': { type: 'string' },
  fresh: { type: 'boolean' },
} as const;

function readOptions(args: string[], usualData: string) {
  const { values } = parseArgs({ args, options: serverOptions });
  const { host = '127.0.0.1', name = [], data = usualData } = values;
  const port = readNumber('--port', values.port ?? '4280', 0, 65_535);
  if (!isLoopback(host) && !values.open)
    throw new UsageError(
      `With --host ${host} everybody who can reach this machine can read and change everything: Coomb has no accounts yet. Say --open if that is what you want.`,
    );
  const copies = {
    folder: values['copies-to'] ?? usualCopiesFolder(data),
    keep: readNumber('--copies', values.copies ?? '7', 0, 10_000),
    everyHours: readNumber('--copies-every', values['copies-every'] ?? '24', 1, 100_000),
  };
  return { port, host, names: name, data, copies, fresh: values.fresh === true };
}

function readNumber(option: string, text: string, from: number, to: number): number {
  const number = Number(text);
  if (text.trim() === '' || !Number.isInteger(number) || number < from || number > to)
    throw new UsageError(`${option} takes a number from ${from} to ${to}, not "${text}".`);
  return number;
}

/** Starts a server that ends the process when its database has given up: nothing can be answered any more, and a new start can. */
async function start({ port, host, names, data, copies }: ReturnType<typeof readOptions>, io: CommandIo): Promise<RunningServer> {
  const onDied = (message: string) => {
    io.error(message);
    // Those who wait for an answer are told first.
    setTimeout(() => process.exit(exitCodes.database), 500);
  };
  const server = await startServer({ data, port, host, names, copies, web, onDied });
  if (!isLoopback(host)) io.error(`Open: everybody who can reach ${host} can read and change everything here. There are no accounts yet.`);
  return server;
}

/** Runs until told to stop; then closes the database properly. A second signal ends it at once. */
async function untilStopped(server: RunningServer, io: CommandIo): Promise<number> {
  await new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, resolve);
  });
  io.error('Stopping…');
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => process.exit(exitCodes.refused));
  await server.stop();
  return exitCodes.done;
}

export const serve: Command['run'] = async (args, io) => {
  const server = await start(readOptions(args, '.coomb/data'), io);
  io.out(`Coomb is ready at ${server.address}`);
  return untilStopped(server, io);
};

export const demo: Command['run'] = async (args, io) => {
  const options = readOptions(args, '.coomb/demo');
  if (options.fresh) await removeData(options.data, options.copies.folder);
  const server = await start(options, io);
  const client = buildClient(server.address, 'Maren Holt');
  const projects = await client.call(listProjects);
  const project = projects[0]?.id ?? (await seedDemo(client, demoFiles, io.error));
  io.out(`Coomb is ready at ${server.address}/p/${project}`);
  return untilStopped(server, io);
};

/** Throws a data folder and the copies of it away, but only when no other process uses it. */
async function removeData(data: string, copies: string): Promise<void> {
  if (existsSync(data)) {
    const unlock = await lockFolder(data);
    unlock();
    rmSync(data, { recursive: true, force: true });
  }
  rmSync(copies, { recursive: true, force: true });
}
