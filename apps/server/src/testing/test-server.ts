import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createCollection, createItem, createLinks, createProject, type Item } from '@coomb/contract';
import { ModulesContainer } from '@nestjs/core';
import { afterAll, beforeAll } from 'vitest';
import { CopiesService } from '../backup/copies.service.js';
import { buildClient, type Client } from '../cli/client.js';
import { type RunningServer, type ServerOptions, startServer } from '../start-server.js';
import { readyFolder } from './make-template.js';

export interface TestServer {
  address: string;
  folder: string;
  /** Speaks as Ada Wick; `as` for others. */
  client: Client;
  as: (person: string) => Client;
  /** With other options than before, where such are given. */
  restart: (options?: Partial<ServerOptions>) => Promise<void>;
  /** Stops it, so that the folder is free, and starts it again. */
  pause: () => Promise<void>;
  resume: () => Promise<void>;
  copies: () => CopiesService;
  /** A part of the running server, by its class. */
  part: <T>(type: new (...all: never[]) => T) => T;
  /** Where the parts of the server hold something under a key that contains `id`: "Service.map". */
  findHeld: (id: string) => string[];
  /** Changes rows behind the ledger's back, as an older version may have left them, and starts anew. */
  dirty: (statement: string) => Promise<void>;
}

/** A real server on a real database in a folder of its own, for the tests of one file. */
export function useServer(options: Partial<ServerOptions> = {}): TestServer {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-server-'));
  let running: RunningServer;
  let asked = options;
  const start = async () => {
    running = await startServer({ data: folder, port: 0, host: '127.0.0.1', template: readyFolder, ...asked });
    server.address = running.address;
    server.client = buildClient(running.address, 'Ada Wick');
  };
  const server: TestServer = {
    address: '',
    folder,
    // Set before the first test runs.
    client: undefined as unknown as Client,
    as: (person) => buildClient(server.address, person),
    restart: async (other) => {
      await running.stop();
      asked = other ?? asked;
      await start();
    },
    pause: () => running.stop(),
    resume: start,
    copies: () => running.app.get(CopiesService),
    part: (type) => running.app.get(type),
    findHeld: (id) => findHeld(running.app.get(ModulesContainer), id),
    dirty: async (statement) => {
      await running.database.client.query(statement);
      await server.restart();
    },
  };
  beforeAll(start);
  afterAll(async () => {
    await running?.stop();
    rmSync(folder, { recursive: true, force: true });
  });
  return server;
}

function findHeld(modules: ModulesContainer, id: string): string[] {
  const parts = [...modules.values()].flatMap((module) => [...module.providers.values()].map(({ instance }) => instance as unknown));
  return parts
    .filter((part) => typeof part === 'object' && part !== null)
    .flatMap((part) =>
      Object.entries(part).flatMap(([name, held]) =>
        (held instanceof Map || held instanceof Set) && [...held.keys()].some((key) => String(key).includes(id)) ? [`${part.constructor.name}.${name}`] : [],
      ),
    );
}

export interface SmallProject {
  project: string;
  requirements: string;
  design: string;
  tests: string;
}

/** A project with three empty collections: requirements, design, tests. */
export async function makeProject(client: Client, name = 'Mill pond'): Promise<SmallProject> {
  const { id: project } = await client.call(createProject, { body: { name } });
  const collection = async (title: string, holds: 'specification' | 'model' | 'tests', prefix: string, kind: string) =>
    (await client.call(createCollection, { params: { project }, body: { name: title, holds, prefix, kind } })).id;
  return {
    project,
    requirements: await collection('Requirements', 'specification', 'REQ', 'requirement'),
    design: await collection('Design', 'model', 'DES', 'component'),
    tests: await collection('Tests', 'tests', 'TC', 'testCase'),
  };
}

export function addItem(
  client: Client,
  project: string,
  collection: string,
  title: string,
  more: { html?: string; parent?: string | null; heading?: boolean } = {},
): Promise<Item> {
  return client.call(createItem, { params: { project }, body: { collection, title, ...more } });
}

export async function addLink(client: Client, project: string, linkKind: string, from: Item, to: Item): Promise<string> {
  const { ids } = await client.call(createLinks, { params: { project }, body: { links: [{ linkKind, from: from.id, to: to.id }] } });
  return ids[0]!;
}
