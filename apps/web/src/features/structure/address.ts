import { z } from 'zod';

/** What a structure shows, as its address and kept ones say it; lists are parted by commas. */
export const structureAddress = z.object({
  collections: z.string().default(''),
  kinds: z.string().default(''),
  below: z.string().default(''),
  marks: z.string().default(''),
  level: z.enum(['', '1', '2', '3', '4']).default(''),
  by: z.enum(['outline', 'order', 'groups']).default('outline'),
  seconds: z.enum(['10', '30', '120']).default('10'),
  seed: z.coerce.number().int().min(1).max(1_000_000).default(1).catch(1),
  show: z.enum(['linked', 'all']).default('linked'),
  size: z.enum(['names', 'whole']).default('names'),
  /** How much each mark weighs, as "place:weight" parted by commas; "once" for each pair of things; "field:…" for what links say in a field. */
  weights: z.string().max(1000).default(''),
  kept: z.string().default(''),
});
export type StructureAddress = z.output<typeof structureAddress>;

/** Weights by the places of the marks; those that are not named weigh one. */
export function readWeights(text: string): ReadonlyMap<number, number> {
  const pairs = text.split(',').flatMap((one): [number, number][] => {
    const found = /^(\d+):(\d+(?:\.\d+)?)$/.exec(one);
    return found ? [[Number(found[1]), Number(found[2])]] : [];
  });
  return new Map(pairs);
}

/** The field of links that dependencies are weighed by; nothing where they are weighed otherwise. */
export const weighedBy = (text: string): string | undefined => (text.startsWith('field:') ? text.slice('field:'.length) : undefined);

export const writeWeights = (weights: ReadonlyMap<number, number>): string =>
  [...weights]
    .filter(([, weight]) => weight !== 1)
    .sort(([a], [b]) => a - b)
    .map(([mark, weight]) => `${mark}:${weight}`)
    .join();
