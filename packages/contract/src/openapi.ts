import { z } from 'zod';
import type { AnyEndpoint } from './endpoint.js';
import { endpoints } from './endpoints.js';
import { needs } from './needs.js';
import { errorReply, errorStatus } from './errors.js';

const schemaOf = (schema: z.ZodType, io: 'input' | 'output') => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Record<string, unknown>;
  return rest;
};

/** The OpenAPI 3.1 document of the whole interface, derived from the endpoints. */
export function buildOpenApi(version: string): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, endpoint] of Object.entries(endpoints)) {
    const path = `/api${endpoint.path.replace(/:(\w+)/g, '{$1}')}`;
    (paths[path] ??= {})[endpoint.method.toLowerCase()] = buildOperation(name, endpoint);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Coomb',
      version,
      description: 'Everything the web application does goes through these calls. Changing calls take the header X-Coomb-Person with the name to record.',
    },
    paths,
    components: { schemas: { Error: schemaOf(errorReply, 'output') } },
  };
}

function buildOperation(name: string, endpoint: AnyEndpoint): Record<string, unknown> {
  const { params, query, body, reply } = endpoint;
  const errors = [...new Set(Object.values(errorStatus))].map((status) => [
    String(status),
    { description: 'Refused', content: { 'application/json': { schema: { $ref: '#/components/schemas/Error' } } } },
  ]);
  return {
    operationId: name,
    summary: endpoint.summary,
    'x-coomb-needs': needs[name],
    parameters: [...buildParameters(params, 'path'), ...buildParameters(query, 'query'), ...(takesMoment(name, endpoint) ? [asOf] : [])],
    ...(body && { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(body, 'input') } } } }),
    ...(endpoint.consumes && {
      requestBody: {
        required: true,
        content: { [endpoint.consumes]: { schema: { type: 'object', properties: { file: { type: 'string', format: 'binary' } }, required: ['file'] } } },
      },
    }),
    responses: {
      '200': { description: 'Done', content: { [endpoint.produces ?? 'application/json']: { schema: schemaOf(reply, 'output') } } },
      ...Object.fromEntries(errors),
    },
  };
}

const asOf = {
  name: 'asOf',
  in: 'query',
  required: false,
  description: 'Number of a change: everything is read as it stood right after it.',
  schema: { type: 'integer', minimum: 1 },
};
const takesMoment = (name: string, { path }: AnyEndpoint) => needs[name] === 'read' && path.startsWith('/projects/:project');

function buildParameters(schema: z.ZodType | undefined, place: 'path' | 'query'): Record<string, unknown>[] {
  if (!(schema instanceof z.ZodObject)) return [];
  return Object.entries(schema.shape as Record<string, z.ZodType>).map(([name, type]) => ({
    name,
    in: place,
    required: place === 'path' || !type.safeParse(undefined).success,
    schema: schemaOf(type, 'input'),
  }));
}
