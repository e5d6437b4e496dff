import type { AnyEndpoint } from '@coomb/contract';
import type { z } from 'zod';

/** Numbers from 0 up to 1 that are the same from the same seed. */
export function makeChance(seed: number): () => number {
  let at = seed;
  return () => {
    at = (Math.imul(at, 1664525) + 1013904223) >>> 0;
    return at / 2 ** 32;
  };
}

export interface Call {
  params: Record<string, unknown>;
  query: Record<string, unknown>;
  body: unknown;
}

type Definition = {
  type: string;
  format?: string;
  innerType?: z.ZodType;
  in?: z.ZodType;
  out?: z.ZodType;
  element?: z.ZodType;
  keyType?: z.ZodType;
  valueType?: z.ZodType;
  options?: z.ZodType[];
  items?: z.ZodType[];
  left?: z.ZodType;
  right?: z.ZodType;
  values?: unknown[];
  entries?: Record<string, unknown>;
  shape?: Record<string, z.ZodType>;
  getter?: () => z.ZodType;
  checks?: { _zod: { def: { format?: string } } }[];
};

/** What a stranger's program may well send, where any text is taken. */
const STRANGE = [
  '',
  ' ',
  '0',
  '-1',
  '1e309',
  '__proto__',
  'toString',
  '../..',
  "'; drop table item; --",
  '%',
  '\\',
  '\u202e',
  '😀',
  'ä'.repeat(300),
  '2026-02-30',
  '9999-12-31T23:59:59Z',
  '(',
  '=1+1',
];
const NUMBERS = [0, -1, 0.5, 60, 1e6, 2 ** 31, 2 ** 53, 1e300];
const NOBODY = '00000000-0000-4000-8000-000000000000';
const DEEP = 6;
const TRIES = 30;

/** Calls at random that fit the contract for the most part; `known` has what a field of a name is filled with: ids and names that are there. */
export class RandomCalls {
  constructor(
    private readonly chance: () => number,
    private readonly known: Readonly<Record<string, readonly unknown[]>>,
  ) {}

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.chance() * list.length)]!;
  }

  make(endpoint: AnyEndpoint): Call {
    const [params, query, body] = [endpoint.params, endpoint.query, endpoint.body].map((schema) => schema && this.fit(schema));
    return { params: (params ?? {}) as Call['params'], query: (query ?? {}) as Call['query'], body };
  }

  /** One in ten need not fit. */
  private fit(schema: z.ZodType): unknown {
    let made = this.fill(schema, '', 0);
    for (let tries = this.chance() < 0.1 ? TRIES : 0; tries < TRIES && !schema.safeParse(made).success; tries++) made = this.fill(schema, '', 0);
    return made;
  }

  private fill(schema: z.ZodType, name: string, depth: number): unknown {
    // The library's own description of a schema: its types name each sort apart.
    const own = (schema as unknown as { _zod: { def: Definition } })._zod.def;
    const { chance } = this;
    switch (own.type) {
      case 'string':
        return this.fillText(own, name);
      case 'number':
        return this.known[name] && chance() < 0.9 ? this.pick(this.known[name]) : chance() < 0.7 ? Math.floor(chance() * 20) : this.pick(NUMBERS);
      case 'boolean':
        return chance() < 0.5;
      case 'literal':
        return this.pick(own.values!);
      case 'enum':
        return this.pick(Object.values(own.entries!));
      case 'optional':
      case 'default':
        return chance() < (depth > DEEP ? 0.9 : 0.5) ? undefined : this.fill(own.innerType!, name, depth);
      case 'nullable':
        return chance() < 0.3 ? null : this.fill(own.innerType!, name, depth);
      case 'pipe':
        return this.fill((own.in as unknown as { _zod: { def: Definition } })._zod.def.type === 'transform' ? own.out! : own.in!, name, depth);
      case 'lazy':
        return this.fill(own.getter!(), name, depth + 1);
      case 'union':
        return this.fill(depth > DEEP ? own.options![0]! : this.pick(own.options!), name, depth + 1);
      case 'array':
        return Array.from({ length: depth > DEEP ? 0 : Math.floor(chance() * chance() * 6) + Number(chance() < 0.7) }, () =>
          this.fill(own.element!, name, depth + 1),
        );
      case 'tuple':
        return own.items!.map((item) => this.fill(item, name, depth + 1));
      case 'record':
        return Object.fromEntries(
          Array.from({ length: Math.floor(chance() * 3) }, () => [
            String(this.fill(own.keyType!, 'field', depth + 1)),
            this.fill(own.valueType!, name, depth + 1),
          ]),
        );
      case 'object':
        return Object.fromEntries(
          Object.entries(own.shape!)
            .map(([key, value]) => [key, this.fill(value, this.known[`${name}.${key}`] ? `${name}.${key}` : key, depth + 1)] as const)
            .filter(([, value]) => value !== undefined),
        );
      case 'intersection':
        return { ...(this.fill(own.left!, name, depth) as object), ...(this.fill(own.right!, name, depth) as object) };
      case 'null':
        return null;
      case 'undefined':
        return undefined;
      case 'unknown':
        return this.pick([null, 1, 'x', true, [], {}]);
      default:
        throw new Error(`There is a sort of schema that is not filled yet: ${own.type}`);
    }
  }

  private fillText({ format, checks = [] }: Definition, name: string): string {
    const known = this.known[name];
    const isId = [format, ...checks.map((check) => check._zod.def.format)].some((one) => one === 'uuid' || one === 'guid');
    if (known && known.length > 0 && this.chance() < 0.93) return String(this.pick(known));
    if (isId) return this.chance() < 0.95 ? String(this.pick(this.known.id!)) : NOBODY;
    return this.chance() < 0.6 ? String(this.pick(this.known.words!)) : this.pick(STRANGE);
  }
}
