import type { z } from 'zod';

export type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE';

/** One call of the HTTP interface: where, what goes in, what comes out. Paths stand below `/api`. */
export interface Endpoint<Params extends z.ZodType, Query extends z.ZodType, Body extends z.ZodType, Reply extends z.ZodType> {
  method: Method;
  path: string;
  summary: string;
  params?: Params;
  query?: Query;
  body?: Body;
  reply: Reply;
  /** Media type of the reply when it is not JSON. */
  produces?: string;
  /** Media type of the request when it is not JSON. */
  consumes?: string;
}

export type AnyEndpoint = Endpoint<z.ZodType, z.ZodType, z.ZodType, z.ZodType>;

export function endpoint<
  R extends z.ZodType,
  P extends z.ZodType = z.ZodType<undefined>,
  Q extends z.ZodType = z.ZodType<undefined>,
  B extends z.ZodType = z.ZodType<undefined>,
>(definition: Endpoint<P, Q, B, R>): Endpoint<P, Q, B, R> {
  return definition;
}

export type ReplyOf<E> = E extends { reply: infer R extends z.ZodType } ? z.output<R> : never;
type InputPart<T> = T extends z.ZodType ? z.input<T> : undefined;
export type ParamsOf<E extends AnyEndpoint> = InputPart<NonNullable<E['params']>>;
export type QueryOf<E extends AnyEndpoint> = InputPart<NonNullable<E['query']>>;
export type BodyOf<E extends AnyEndpoint> = InputPart<NonNullable<E['body']>>;

/** Fills `:names` of a path and appends the query. */
export function buildUrl(path: string, params: Record<string, unknown> = {}, query: Record<string, unknown> = {}): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(params[name])));
  const search = new URLSearchParams();
  for (const [key, value] of Object.entries(query)) if (value !== undefined && value !== null) search.set(key, String(value));
  const text = search.toString();
  return `/api${filled}${text ? `?${text}` : ''}`;
}
