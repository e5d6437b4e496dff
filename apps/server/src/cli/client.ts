import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import {
  type AnyEndpoint,
  buildUrl,
  type BodyOf,
  errorReply,
  type ParamsOf,
  type QueryOf,
  type ReplyOf,
  CoombError,
  getJob,
  importFile,
  type Job,
  listProjects,
  createProject,
  uploadFile,
} from '@coomb/contract';
import { startServer } from '../start-server.js';
import { UsageError } from './command.js';

export interface Client {
  call: <E extends AnyEndpoint>(endpoint: E, input?: { params?: ParamsOf<E>; query?: QueryOf<E>; body?: BodyOf<E> }) => Promise<ReplyOf<E>>;
  bytes: (endpoint: AnyEndpoint, params: Record<string, string>) => Promise<Buffer>;
  stream: (endpoint: AnyEndpoint) => Promise<NodeJS.ReadableStream>;
  upload: (project: string, name: string, bytes: Uint8Array) => Promise<ReplyOf<typeof uploadFile>>;
}

/** Speaks to a server of Coomb by its contract. Refusals come as CoombError. */
export function buildClient(address: string, person: string): Client {
  const send = async (endpoint: AnyEndpoint, url: string, init: RequestInit = {}) => {
    const response = await fetch(`${address}${url}`, {
      method: endpoint.method,
      ...init,
      headers: { 'X-Coomb-Person': encodeURIComponent(person), ...init.headers },
    });
    if (response.ok) return response;
    const parsed = errorReply.safeParse(await response.json().catch(() => undefined));
    if (parsed.success) throw new CoombError(parsed.data.error.code, parsed.data.error.message, parsed.data.error.details);
    throw new Error(`The server at ${address} answered ${response.status}`);
  };
  return {
    call: async (endpoint, input = {}) => {
      const url = buildUrl(endpoint.path, input.params as Record<string, unknown>, input.query as Record<string, unknown>);
      const body = input.body === undefined ? {} : { body: JSON.stringify(input.body), headers: { 'Content-Type': 'application/json' } };
      const response = await send(endpoint, url, body);
      // What the endpoint parses is its own reply.
      return endpoint.reply.parse(await response.json()) as never;
    },
    bytes: async (endpoint, params) => Buffer.from(await (await send(endpoint, buildUrl(endpoint.path, params))).arrayBuffer()),
    stream: async (endpoint) => Readable.fromWeb((await send(endpoint, buildUrl(endpoint.path))).body as ReadableStream<Uint8Array>),
    upload: async (project, name, bytes) => {
      const form = new FormData();
      form.set('file', new Blob([new Uint8Array(bytes)]), name);
      const response = await send(uploadFile, buildUrl(uploadFile.path, { project }), { body: form });
      return uploadFile.reply.parse(await response.json());
    },
  };
}

/** Uploads and imports a file and waits for the job. Throws what the job says when it fails. */
export async function importThrough(
  client: Client,
  project: string,
  name: string,
  bytes: Uint8Array,
  wish: BodyOf<typeof importFile>,
): Promise<NonNullable<Job['outcome']>> {
  const entry = await client.upload(project, name, bytes);
  const { job } = await client.call(importFile, { params: { project, tray: entry.id }, body: wish });
  for (;;) {
    const now = await client.call(getJob, { params: { project, job } });
    if (now.state === 'done') return now.outcome!;
    if (now.state !== 'running') throw new CoombError('file-unreadable', now.message);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

export interface Target {
  data: string | undefined;
  server: string | undefined;
  person: string;
}

/** Works on a running server, or on a data folder by a server of its own for the time being. */
export async function withClient<T>(target: Target, work: (client: Client) => Promise<T>): Promise<T> {
  if (target.server) return work(buildClient(target.server.replace(/\/$/, ''), target.person));
  if (!target.data) throw new UsageError('Say where the project is: --data FOLDER, or --server ADDRESS of a running Coomb.');
  const server = await startServer({ data: target.data, port: 0, host: '127.0.0.1' });
  try {
    return await work(buildClient(server.address, target.person));
  } finally {
    await server.stop();
  }
}

/** A project by id or name; made when missing and `create` is asked. */
export async function findProject(client: Client, wanted: string | undefined, create = false): Promise<string> {
  const projects = await client.call(listProjects);
  const found = wanted === undefined && projects.length === 1 ? projects[0] : projects.find((one) => one.id === wanted || one.name === wanted);
  if (found) return found.id;
  if (wanted && create) return (await client.call(createProject, { body: { name: wanted } })).id;
  throw new UsageError(
    wanted
      ? `There is no project "${wanted}"; there are: ${projects.map((one) => one.name).join(', ') || 'none'}.`
      : `Say which project: --project NAME, one of ${projects.map((one) => one.name).join(', ') || 'none'}.`,
  );
}
