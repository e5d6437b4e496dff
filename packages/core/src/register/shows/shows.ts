import type { Scheme } from '../../scheme/scheme.js';
import { changedAt, changedBy, createdAt } from './changed.js';
import { field } from './field.js';
import { drawnIn } from './drawn-in.js';
import { kind, layer } from './kind.js';
import { links, suspect } from './links.js';
import { reference, title } from './name.js';
import { collection, place } from './place.js';
import type { AnyShow, Offer } from './show.js';
import { text } from './text.js';
import { usage } from './usage.js';
import { coverage, result, resultAt, state } from './standing.js';

/** Everything that a register can show of an item, in the order in which it is offered. */
export const shows: readonly AnyShow[] = [
  ...[reference, title, text, kind, layer, collection, place, state, field, coverage, result, resultAt],
  ...[links, suspect, changedAt, changedBy, createdAt, usage, drawnIn],
];

const bySort = new Map(shows.map((show) => [show.sort, show]));

export const findShow = (sort: string): AnyShow | undefined => bySort.get(sort);

/** What something shows in a project; undefined where it is not there, or not any more. */
export function findOffer(scheme: Scheme, { sort, of }: { sort: string; of?: string | undefined }): Offer | undefined {
  return findShow(sort)
    ?.offers(scheme)
    .find((one) => (one.of ?? '') === (of ?? ''));
}
