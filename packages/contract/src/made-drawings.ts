import { figures, madeDetails, madeSorts } from '@coomb/core';
import { z } from 'zod';
import { idSchema, projectParams, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';

const keys = z.array(z.string().max(4000)).max(2000);

/** What a drawing of ours shows: the rest follows from the project as it is. */
export const madeDefinition = z.object({
  sort: z.enum(madeSorts),
  /** Id of the item or collection that it is about; empty for the whole project. */
  about: z.string().max(100),
  levels: z.number().int().min(0).max(20),
  detail: z.array(z.enum(madeDetails)).max(10),
  /** Of a trace: how far upstream, kinds of links that are not followed, places that are unfolded and folded. */
  up: z.number().int().min(0).max(20).optional(),
  without: z.array(z.string().max(120)).max(200).optional(),
  derived: z.boolean().optional(),
  opened: keys.optional(),
  closed: keys.optional(),
});

/** Places given by hand, by keys of nodes: of trees how far from where a node would stand, of others where it stands. */
export const handPlaces = z.record(z.string().max(4000), z.object({ x: z.number().min(-1e6).max(1e6), y: z.number().min(-1e6).max(1e6) }));

export const madeNode = z.object({
  key: z.string(),
  /** Node number of the item that it shows, or -1. */
  item: z.number(),
  name: z.string(),
  keyword: z.string(),
  figure: z.enum(figures),
  parts: z.array(z.object({ title: z.string(), lines: z.array(z.string()) })),
  branch: z.number(),
  inside: z.number(),
  side: z.literal(-1).optional(),
});

export const madeEdge = z.object({
  from: z.number(),
  to: z.number(),
  label: z.string(),
  /** Numbers of the links that it stands for. */
  links: z.array(z.number()),
  derived: z.boolean(),
  suspect: z.boolean(),
  start: z.enum(['none', 'filledDiamond']),
  end: z.enum(['none', 'arrow']),
});

export const planDrawing = endpoint({
  method: 'POST',
  path: '/projects/:project/made-drawings/plan',
  summary: 'What a drawing of ours would show now: nodes and lines, not yet placed; nothing is stored',
  params: projectParams,
  body: madeDefinition,
  reply: z.object({ nodes: z.array(madeNode), edges: z.array(madeEdge), isTree: z.boolean(), cut: z.boolean() }),
});

export const keepDrawing = endpoint({
  method: 'POST',
  path: '/projects/:project/made-drawings',
  summary: 'Keep a drawing of ours, as an item with its places; it stays current by itself',
  params: projectParams,
  body: z.object({ name: z.string().trim().min(1).max(200), definition: madeDefinition, hand: handPlaces.default({}) }),
  reply: z.object({ drawing: idSchema, item: idSchema }),
});

export const placeDrawing = endpoint({
  method: 'PATCH',
  path: '/projects/:project/made-drawings/:drawing',
  summary: 'Place nodes of a kept drawing by hand, or have it show something else; `revision` is the one that was seen',
  params: projectParams.extend({ drawing: idSchema }),
  body: z.object({ revision: wholeNumber, definition: madeDefinition.optional(), hand: handPlaces }),
  reply: z.object({ revision: z.number() }),
});
