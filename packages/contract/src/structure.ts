import { z } from 'zod';
import { idSchema, projectParams, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';

/** Things and dependencies that one question is asked of. */
export const MOST_THINGS = 5000;
export const MOST_DEPENDENCIES = 200_000;

const numbers = z.array(wholeNumber).max(MOST_DEPENDENCIES);
/** Dependencies between things, which are numbered from 0: `from[i]` depends on `to[i]`, `weight[i]` times; each pair once. */
const dependencies = z.object({
  nodes: z.number().int().min(0).max(MOST_THINGS),
  from: numbers,
  to: numbers,
  weight: z.array(z.number().positive()).max(MOST_DEPENDENCIES),
});
export type DependenciesBody = z.output<typeof dependencies>;

export const orderStructure = endpoint({
  method: 'POST',
  path: '/projects/:project/structure/order',
  summary:
    'An order of things in which dependencies on what stands after are fewest, with its cycles and the least that any order has. Stops when the caller goes. Nothing is stored',
  params: projectParams,
  body: dependencies.extend({ seconds: z.number().min(0.1).max(120).default(10), seed: z.number().int().min(1).max(1_000_000).default(1) }),
  reply: z.object({
    order: z.array(z.number()),
    /** Cycles as they stand in the order: what feedback they keep, by the places of dependencies, and the least that they must. */
    blocks: z.array(z.object({ start: z.number(), size: z.number(), weight: z.number(), bound: z.number(), feedback: z.array(z.number()) })),
    weight: z.number(),
    bound: z.number(),
    seconds: z.number(),
  }),
});

export const proposeStructure = endpoint({
  method: 'POST',
  path: '/projects/:project/structure/groups',
  summary: 'Groups of things that depend on each other more than on others, the shortest description of many. Stops when the caller goes. Nothing is stored',
  params: projectParams,
  body: dependencies.extend({ seed: z.number().int().min(1).max(1_000_000).default(1) }),
  reply: z.object({
    /** Group of each thing; -1 for what is tied with so many that it stands apart. */
    group: z.array(z.number()),
    count: z.number(),
    /** Bits that it takes to describe what is tied by these groups, and by none. */
    bits: z.number(),
    bitsOfOne: z.number(),
    /** Whether these groups are described the shorter. */
    isTelling: z.boolean(),
    shared: z.array(z.number()),
    seconds: z.number(),
  }),
});

export const readLinkNumbers = endpoint({
  method: 'GET',
  path: '/projects/:project/structure/numbers/:field',
  summary: 'The numbers that links say in a field, for those that say any: what dependencies can be weighed by',
  params: projectParams.extend({ field: z.string().max(120) }),
  reply: z.object({
    seq: z.number(),
    /** Side by side: nodes of the ends, the number of the kind in the scheme, and what is said. */
    ...{ from: z.array(z.number()), to: z.array(z.number()), kind: z.array(z.number()), number: z.array(z.number()) },
  }),
});

export const makeGroups = endpoint({
  method: 'POST',
  path: '/projects/:project/structure/make',
  summary:
    'Makes an item of each group and links what is in the group with it, such as a component that its functions are allocated to: one change, one undo. With `dryRun` nothing is stored',
  params: projectParams,
  body: z.object({
    kind: z.string().max(100),
    linkKind: z.string().max(120),
    /** The new item stands at the `from` end of each link. */
    reversed: z.boolean(),
    /** Where they go, if not to the home of their kind. */
    collection: idSchema.optional(),
    /** Name of a new set: each group gets a collection of its own there, and its item stands in it. */
    set: z.string().trim().min(1).max(120).optional(),
    groups: z
      .array(z.object({ title: z.string().trim().min(1).max(500), items: z.array(idSchema).min(1).max(MOST_THINGS) }))
      .min(1)
      .max(500),
    dryRun: z.boolean().default(false),
  }),
  reply: z.object({
    seq: z.number(),
    /** One for each group, in their order; none of a dry run. */
    items: z.array(z.object({ id: idSchema, reference: z.string() })),
    links: z.number(),
    /** Items that may not be linked so: they are left out. */
    refused: z.array(z.object({ item: idSchema, says: z.string() })),
  }),
});
