import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { buildClient } from '../client.js';
import { type Command, type CommandIo, exitCodes, UsageError } from '../command.js';
import { seedDemo } from '../demo/seed-demo.js';
import { type RunningServer, startServer } from '../../start-server.js';
import { listProjects } from '@coomb/contract';
import { existsSync, rmSync } from 'node:fs';
import { lockFolder } from '../../database/folder-lock.js';

const web = fileURLToPath(new URL('../../../../web/dist', import.meta.url));
const demoFiles = fileURLToPath(new URL('../../../../../demo/files/', import.meta.url));

function readOptions(args: string[], usualData: string) {
  const { values } = parseArgs({ args, options: { port: { type: 'string' }, host: { type: 'string' }, data: { type: 'string' }, fresh: { type: 'boolean' } } });
  const port = Number(values.port ?? 4280);
  if (!Number.isInteger(port) || port < 0 || port > 65_535) throw new UsageError(`--port takes a number from 0 to 65535, not "${values.port}".`);
  return { port, host: values.host ?? '127.0.0.1', data: values.data ?? usualData, fresh: values.fresh === true };
}

/** Runs until told to stop; then closes the database properly. */
async function untilStopped(server: RunningServer, io: CommandIo): Promise<number> {
  await new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, resolve);
  });
  io.error('Stopping…');
  await server.stop();
  return exitCodes.done;
}

export const serve: Command = {
  name: 'serve',
  usage: 'serve [--port 4280] [--host 127.0.0.1] [--data .coomb/data]',
  summary: 'Start Coomb on a data folder',
  run: async (args, io) => {
    const { port, host, data } = readOptions(args, '.coomb/data');
    const server = await startServer({ data, port, host, web });
    io.out(`Coomb is ready at ${server.address}`);
    return untilStopped(server, io);
  },
};

export const demo: Command = {
  name: 'demo',
  usage: 'demo [--port 4280] [--host 127.0.0.1] [--data .coomb/demo] [--fresh]',
  summary: 'Start Coomb on the Larkbeck Weir project; --fresh throws your changes away and begins anew',
  run: async (args, io) => {
    const { port, host, data, fresh } = readOptions(args, '.coomb/demo');
    if (fresh) await removeData(data);
    const server = await startServer({ data, port, host, web });
    const client = buildClient(server.address, 'Maren Holt');
    const projects = await client.call(listProjects);
    const project = projects[0]?.id ?? (await seedDemo(client, demoFiles, io.error));
    io.out(`Coomb is ready at ${server.address}/p/${project}`);
    return untilStopped(server, io);
  },
};

/** Throws a data folder away, but only when no other process uses it. */
async function removeData(data: string): Promise<void> {
  if (!existsSync(data)) return;
  const unlock = await lockFolder(data);
  unlock();
  rmSync(data, { recursive: true, force: true });
}
