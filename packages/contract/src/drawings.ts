import { drawingSorts, figures } from '@coomb/core';
import { z } from 'zod';
import { briefSchema, idSchema, projectParams, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';
import { handPlaces, madeDefinition } from './made-drawings.js';

const point = z.object({ x: z.number(), y: z.number() });
const box = point.extend({ width: z.number(), height: z.number() });
const style = z.object({ fill: z.string().optional(), line: z.string().optional(), font: z.string().optional() });
const endMark = z.enum(['none', 'arrow', 'triangle', 'filled', 'diamond', 'filledDiamond', 'circle', 'filledCircle', 'slash']);

export const drawnShape = box.extend({
  id: z.string(),
  element: z.string(),
  /** The item that it shows, where it shows one. */
  item: idSchema.nullable(),
  /** Index of the shape that it lies in, or -1. */
  inside: z.number(),
  figure: z.enum(figures),
  name: z.string(),
  keyword: z.string().optional(),
  parts: z.array(z.object({ title: z.string(), lines: z.array(z.string()) })).optional(),
  label: box.optional(),
  style: style.optional(),
  folded: z.boolean().optional(),
  upright: z.boolean().optional(),
  sign: z.string().optional(),
});

export const drawnRoute = z.object({
  id: z.string(),
  element: z.string(),
  from: z.number(),
  to: z.number(),
  points: z.array(point),
  dashed: z.boolean(),
  start: endMark,
  end: endMark,
  label: z.string(),
  labelBox: box.optional(),
  startText: z.string().optional(),
  endText: z.string().optional(),
  style: style.optional(),
});

export const drawingBrief = z.object({
  id: idSchema,
  /** The item that the drawing is; nothing for drawings from before drawings were items. */
  item: briefSchema.nullable(),
  name: z.string(),
  collection: idSchema,
  sort: z.enum(drawingSorts),
  shapes: z.number(),
  routes: z.number(),
  /** It was made here. */
  made: z.boolean(),
});
export type DrawingBrief = z.infer<typeof drawingBrief> & { /** Shapes whose items are seen through the lens that was asked for. */ seen?: number | undefined };

/** Boxes beside shapes, with what they are linked with: of which shapes, of which layers, and where people put them. */
export const linkBoxes = z.object({
  shown: z.union([z.literal('all'), z.array(z.string().max(4000)).max(5000)]),
  layers: z.array(z.string().max(120)).max(50),
  places: handPlaces,
});

export const setBoxes = endpoint({
  method: 'PATCH',
  path: '/projects/:project/drawings/:drawing/boxes',
  summary: 'Boxes with links beside the shapes of a drawing; `revision` is the one that was seen',
  params: projectParams.extend({ drawing: idSchema }),
  body: z.object({ revision: wholeNumber, boxes: linkBoxes }),
  reply: z.object({ revision: z.number() }),
});

export const listDrawings = endpoint({
  method: 'GET',
  path: '/projects/:project/drawings',
  summary: 'Drawings of the project, collection by collection, in the order of their models',
  params: projectParams,
  /** Through a lens, shapes whose items are seen are counted; no drawing is left out. */
  query: z.object({ lens: idSchema.optional() }),
  reply: z.array(drawingBrief.extend({ seen: z.number().optional() })),
});

export const getDrawing = endpoint({
  method: 'GET',
  path: '/projects/:project/drawings/:drawing',
  summary: 'A drawing with its shapes and routes as its tool placed them; by its own id, or that of the item that it is',
  params: projectParams.extend({ drawing: idSchema }),
  reply: drawingBrief.omit({ shapes: true, routes: true, made: true }).extend({
    ...{ shapes: z.array(drawnShape), routes: z.array(drawnRoute), revision: z.number() },
    boxes: linkBoxes,
    /** Of a drawing that was made here: what it shows, what was placed by hand, what it shows no more and what it shows since it was last placed. */
    made: z.object({ definition: madeDefinition, hand: handPlaces, gone: z.array(z.string()), fresh: z.array(z.string()), cut: z.boolean() }).nullable(),
  }),
});
export type Drawing = z.infer<(typeof getDrawing)['reply']>;
