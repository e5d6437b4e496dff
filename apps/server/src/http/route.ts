import { type AnyEndpoint, endpoints } from '@coomb/contract';
import { applyDecorators, createParamDecorator, Delete, type ExecutionContext, Get, HttpCode, Patch, Post, SetMetadata } from '@nestjs/common';
import { CoombError } from '@coomb/contract';
import { cleanText, findUnstorable } from '@coomb/core';
import type { Request } from 'express';
import { presentPerson } from './caller.js';
import type { z } from 'zod';

const methods = { GET: Get, POST: Post, PATCH: Patch, DELETE: Delete } as const;

/** Name of the endpoint that a handler serves. */
export const ENDPOINT_NAME = Symbol('endpoint name');
const nameOf = new Map(Object.entries(endpoints).map(([name, endpoint]) => [endpoint, name]));

/** Serves an endpoint of the contract. */
export function Route(endpoint: AnyEndpoint): MethodDecorator {
  return applyDecorators(methods[endpoint.method](endpoint.path), HttpCode(200), SetMetadata(ENDPOINT_NAME, nameOf.get(endpoint)));
}

type Part<S> = S extends z.ZodType ? z.output<S> : undefined;
export interface Input<E extends AnyEndpoint> {
  params: Part<NonNullable<E['params']>>;
  query: Part<NonNullable<E['query']>>;
  body: Part<NonNullable<E['body']>>;
  /** Id of the person to record for what is done. */
  person: string;
}

/** Everything a call brings, parsed by its endpoint. Refuses with every complaint at once. */
export const Call = createParamDecorator((endpoint: AnyEndpoint, context: ExecutionContext) => {
  const request = context.switchToHttp().getRequest<Request>();
  return {
    params: parse(endpoint.params, request.params, 'address'),
    query: parse(endpoint.query, request.query, 'query'),
    body: parse(endpoint.body, request.body, 'body'),
    person: presentPerson() || readPersonName(request),
  };
});

/** What parts of an address name, where people call it something else. */
const NAMES: Record<string, string> = { tray: 'file that was handed in', run: 'test run', batch: 'change' };

/** A body of a thousand rows may be wrong a thousand times: the first faults tell what is wrong with it. */
const MOST_TOLD = 5;

const DEEPEST = 100;

/** Soft line breaks of what people write become line breaks; other characters that cannot be stored are refused with their place. */
function cleanInput(value: unknown, path: string): unknown {
  if (typeof value === 'string') {
    const bad = findUnstorable(value.replace(/[\x0b\x0c]/g, ' '));
    if (bad) throw new CoombError('input-invalid', `${path}: character ${bad.at} is ${bad.name}, which cannot be stored. Remove it and try again.`);
    return cleanText(value, /(?:^|\.)html$/.test(path)).text;
  }
  if (typeof value !== 'object' || value === null) return value;
  if (path.split('.').length > DEEPEST) throw new CoombError('input-invalid', `${path.slice(0, 80)}…: values stand too deep in one another.`);
  if (Array.isArray(value)) return value.map((one, index) => cleanInput(one, `${path}.${index}`));
  return Object.fromEntries(
    Object.entries(value).map(([key, one]) => [cleanInput(key, `${path}, a name`), cleanInput(one, path === 'body' ? key : `${path}.${key}`)]),
  );
}

function parse(schema: z.ZodType | undefined, given: unknown, what: string): unknown {
  if (!schema) return undefined;
  const value = cleanInput(given ?? {}, what);
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const [first] = parsed.error.issues;
  if (what === 'address' && first?.code === 'invalid_format' && first.format === 'uuid') {
    const name = String(first.path[0]);
    throw new CoombError(
      'not-found',
      `"${String((value as Record<string, unknown>)[name]).slice(0, 60)}" is the name of no ${NAMES[name] ?? name}. The address is mistyped, or old.`,
    );
  }
  const complaints = parsed.error.issues.map((issue) => ({ at: issue.path.join('.') || what, message: issue.message }));
  const rest = complaints.length - MOST_TOLD;
  const told = complaints.slice(0, MOST_TOLD).map(({ at, message }) => `${at}: ${message}`);
  throw new CoombError('input-invalid', `${told.join('; ')}${rest > 0 ? `; and ${rest} more` : ''}`, { complaints: complaints.slice(0, 100) });
}

/** The name that a request comes under. */
export function readPersonName(request: Request): string {
  const header = request.headers['x-coomb-person'];
  const text = typeof header === 'string' ? safeDecode(header) : '';
  return cleanText(text).text.replace(/\s+/g, ' ').trim().slice(0, 80) || 'Somebody';
}

function safeDecode(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
