import { defaultScheme } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { liveEvent } from './changes.js';
import { buildUrl } from './endpoint.js';
import { endpoints } from './endpoints.js';
import { CoombError, errorReply, errorStatus } from './errors.js';
import { buildOpenApi } from './openapi.js';
import { createCollection } from './projects.js';
import { meaningSchema } from './recipes.js';
import { fieldsSchema, schemeSchema } from './scheme.js';

describe('buildUrl', () => {
  it('fills names and appends what is asked', () => {
    expect(buildUrl('/projects/:project/items/:item', { project: 'p', item: 'SYS-001/a b' }, { words: 'x & y', most: 5 })).toBe(
      '/api/projects/p/items/SYS-001%2Fa%20b?words=x+%26+y&most=5',
    );
  });

  it('leaves out what is not given', () => {
    expect(buildUrl('/projects', {}, { a: undefined, b: null, c: 0 })).toBe('/api/projects?c=0');
  });
});

describe('endpoints', () => {
  const all = Object.entries(endpoints);

  it('are there, each with its own method and path', () => {
    expect(all.length).toBeGreaterThan(35);
    const routes = all.map(([, endpoint]) => `${endpoint.method} ${endpoint.path}`);
    expect(new Set(routes).size).toBe(routes.length);
  });

  it.each(all)('%s takes no whole number that the database cannot count to', (_, { params, query, body }) => {
    const unbounded: string[] = [];
    const walk = (value: unknown, path: string) => {
      if (typeof value !== 'object' || value === null) return;
      const { type, maximum } = value as { type?: string; maximum?: number };
      if (type === 'integer' && !(maximum! <= 2_147_483_647)) unbounded.push(path);
      for (const [key, one] of Object.entries(value)) walk(one, `${path}.${key}`);
    };
    for (const schema of [params, query, body]) if (schema) walk(z.toJSONSchema(schema, { io: 'output', unrepresentable: 'any' }), '');
    expect(unbounded).toEqual([]);
  });

  it.each(all)('%s names every part of its path among its parameters', (_, endpoint) => {
    const names = [...endpoint.path.matchAll(/:(\w+)/g)].map((match) => match[1]);
    const shape = endpoint.params instanceof z.ZodObject ? Object.keys(endpoint.params.shape) : [];
    expect(shape.sort()).toEqual(names.sort());
    expect(endpoint.summary.length).toBeGreaterThan(5);
  });

  it('changes nothing by GET', () => {
    for (const [name, endpoint] of all) if (endpoint.method === 'GET') expect(endpoint.body, name).toBeUndefined();
  });
});

describe('the OpenAPI document', () => {
  const document = buildOpenApi('1.2.3') as {
    info: { version: string };
    paths: Record<
      string,
      Record<string, { parameters: { name: string; in: string; required: boolean }[]; requestBody?: unknown; responses: Record<string, unknown> }>
    >;
  };

  it('marks path parameters as required and query parameters by their schema', () => {
    const find = document.paths['/api/projects/{project}/find']!.get!;
    expect(find.parameters.map(({ name, in: place, required }) => [name, place, required])).toEqual([
      ['project', 'path', true],
      ['words', 'query', true],
      ['most', 'query', false],
      ['lens', 'query', false],
      ['asOf', 'query', false],
    ]);
  });

  it('gives bodies, replies and errors', () => {
    const create = document.paths['/api/projects']!.post!;
    expect(create.requestBody).toMatchObject({ required: true, content: { 'application/json': { schema: { type: 'object' } } } });
    expect(Object.keys(create.responses).sort()).toEqual(['200', ...new Set(Object.values(errorStatus).map(String))].sort());
    expect(document.paths['/api/projects/{project}/tray']!.post!.requestBody).toMatchObject({ content: { 'multipart/form-data': {} } });
    expect(document.info.version).toBe('1.2.3');
  });

  it('is plain JSON', () => {
    expect(JSON.parse(JSON.stringify(document))).toEqual(document);
  });
});

describe('schemas', () => {
  it('take the usual scheme of a project', () => {
    expect(schemeSchema.parse(defaultScheme)).toEqual(defaultScheme);
  });

  it.each([
    ['SYS', true],
    ['A1', true],
    ['1A', false],
    ['', false],
    ['TOOLONGPREFIX', false],
    ['A-B', false],
  ])('prefix "%s" is %s', (prefix, good) => {
    const body = { name: 'N', holds: 'specification', prefix, kind: 'requirement' };
    expect(createCollection.body!.safeParse(body).success).toBe(good);
  });

  it.each([
    [{ as: 'ignore' }, true],
    [{ as: 'field', field: 'priority' }, true],
    [{ as: 'field' }, false],
    [{ as: 'link', linkKind: 'derives', reversed: false }, true],
    [{ as: 'link', linkKind: 'derives' }, false],
    [{ as: 'riddle' }, false],
  ])('meaning %j', (meaning, good) => {
    expect(meaningSchema.safeParse(meaning).success).toBe(good);
  });

  it('keep field values of every type', () => {
    const fields = { a: 'x', b: 1.5, c: true, d: ['x', 'y'], e: null };
    expect(fieldsSchema.parse(fields)).toEqual(fields);
    expect(fieldsSchema.safeParse({ a: { nested: 1 } }).success).toBe(false);
  });

  it('know live events by their type', () => {
    expect(liveEvent.safeParse({ type: 'people', people: [{ name: 'Ada', items: [], writing: [] }] }).success).toBe(true);
    expect(liveEvent.safeParse({ type: 'change', seq: 1 }).success).toBe(false);
  });
});

describe('errors', () => {
  it('carry a code that has a status', () => {
    const error = new CoombError('link-exists', 'A satisfies B already.', { link: 1 });
    expect(errorStatus[error.code]).toBe(409);
    expect(errorReply.safeParse({ error: { code: error.code, message: error.message, details: error.details } }).success).toBe(true);
    expect(errorReply.safeParse({ error: { code: 'riddle', message: '' } }).success).toBe(false);
  });
});
