import {
  type AnyEndpoint,
  type BodyOf,
  buildUrl,
  type ErrorCode,
  errorReply,
  type ParamsOf,
  type QueryOf,
  type ReplyOf,
  type TrayEntry,
  type StoredPicture,
  storePicture,
  uploadFile,
} from '@coomb/contract';
import { askedAsOf } from '../moment/asked-as-of';
import { readHand, readPerson } from './person';
import { lastSeen, noteSeen } from './seen';

/** A refusal of the server, in words for people. */
export class ApiError extends Error {
  override readonly name = 'ApiError';
  readonly code: ErrorCode | 'unreachable';
  readonly details: Record<string, unknown> | undefined;
  constructor(code: ErrorCode | 'unreachable', message: string, details?: Record<string, unknown>) {
    super(message);
    this.code = code;
    this.details = details;
  }
}

interface Input<E extends AnyEndpoint> {
  params?: ParamsOf<E>;
  query?: QueryOf<E>;
  body?: BodyOf<E>;
  /** A moment of its own, whichever is looked at. */
  asOf?: number;
  signal?: AbortSignal;
}

/** Calls an endpoint of the contract and parses the reply. Throws ApiError. */
export async function call<E extends AnyEndpoint>(endpoint: E, input: Input<E> = {}): Promise<ReplyOf<E>> {
  const project = String((input.params as Record<string, unknown> | undefined)?.project ?? '');
  const asOf = input.asOf === undefined ? momentAskedFor(endpoint, project) : { asOf: input.asOf };
  const url = buildUrl(endpoint.path, input.params as Record<string, unknown>, { ...(input.query as Record<string, unknown>), ...asOf });
  const base = endpoint.method === 'GET' ? undefined : lastSeen(project);
  const response = await send(url, {
    method: endpoint.method,
    headers: {
      ...(input.body !== undefined && { 'Content-Type': 'application/json' }),
      ...(base !== undefined && { 'X-Coomb-Based-On': String(base) }),
    },
    ...(input.body !== undefined && { body: JSON.stringify(input.body) }),
    ...(input.signal && { signal: input.signal }),
  });
  const parsed = endpoint.reply.safeParse(await response.json());
  if (!parsed.success)
    throw new ApiError(
      'internal',
      'The server answered in a way this page does not understand. Load the page again; if it stays, the server is of another version.',
    );
  if (endpoint.method === 'GET' && project && !asOf) {
    const { seq } = (parsed.data ?? {}) as { seq?: unknown };
    if (typeof seq === 'number') noteSeen(project, seq);
  }
  return parsed.data as ReplyOf<E>;
}

/** What a call says of the earlier moment that is looked at. What would change something is refused there: it would change the present. */
function momentAskedFor(endpoint: AnyEndpoint, project: string): { asOf: number } | undefined {
  const asOf = askedAsOf(endpoint, project);
  if (asOf === 'refused') throw new ApiError('input-invalid', 'You look at an earlier moment, where nothing can be changed. Go back to now first (Alt N).');
  return asOf === undefined ? undefined : { asOf };
}

/** The address of what a call would answer, for links: of the moment that is looked at. */
export function addressOf(endpoint: AnyEndpoint, params: Record<string, unknown>, query: Record<string, unknown> = {}): string {
  const asOf = askedAsOf(endpoint, String(params.project ?? ''));
  return buildUrl(endpoint.path, params, { ...query, ...(typeof asOf === 'number' && { asOf }) });
}

/** Calls an endpoint that answers with a file. Throws ApiError. */
export async function fetchFile<E extends AnyEndpoint>(endpoint: E, { params, body }: Input<E>): Promise<{ name: string; blob: Blob }> {
  const headers = { 'Content-Type': 'application/json' };
  const asOf = momentAskedFor(endpoint, String((params as Record<string, unknown> | undefined)?.project ?? ''));
  const response = await send(buildUrl(endpoint.path, params as Record<string, unknown>, asOf), {
    method: endpoint.method,
    body: JSON.stringify(body),
    headers,
  });
  const said = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('content-disposition') ?? '')?.[1];
  return { name: said ? decodeURIComponent(said) : 'export', blob: await response.blob() };
}

export async function upload(project: string, file: File): Promise<TrayEntry> {
  momentAskedFor(uploadFile, project);
  const form = new FormData();
  form.set('file', file);
  const response = await send(buildUrl(uploadFile.path, { project }), { method: 'POST', body: form });
  return uploadFile.reply.parse(await response.json());
}

/** Stores a picture for a text. Throws ApiError. */
export async function uploadPicture(project: string, file: File): Promise<StoredPicture> {
  momentAskedFor(storePicture, project);
  const form = new FormData();
  form.set('file', file, file.name || 'picture');
  const response = await send(buildUrl(storePicture.path, { project }), { method: 'POST', body: form });
  return storePicture.reply.parse(await response.json());
}

/** A picture that is written into an address, or lies in another project of this server. Throws an Error where it cannot be had. */
export async function fetchPicture(address: string): Promise<File> {
  const response = await fetch(address);
  if (!response.ok) throw new Error('This picture is not there.');
  return new File([await response.blob()], 'picture');
}

async function send(url: string, init: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(url, { ...init, headers: { ...init.headers, 'X-Coomb-Person': encodeURIComponent(readPerson()), 'X-Coomb-Hand': readHand() } });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ApiError('unreachable', 'Coomb cannot be reached. What you typed is still here; try again when the server runs.');
  }
  if (response.ok) return response;
  const parsed = errorReply.safeParse(await response.json().catch(() => undefined));
  if (parsed.success) throw new ApiError(parsed.data.error.code, parsed.data.error.message, parsed.data.error.details);
  throw new ApiError('internal', `The server answered ${response.status}.`);
}
