/** A link for which far less speaks than for others of its kind. */
export interface DoubtfulLink {
  /** Its place among those that were judged. */
  place: number;
  /** The share of what else its end could be linked with that less speaks for; from 0 to 1. */
  standing: number;
  /** Nine of ten links of its kind stand at least so. */
  usual: number;
}

/** With fewer links nothing is usual; and where these do not stand clearly above others, nothing is unusual. */
const LEAST_LINKS = 20;
const LEAST_USUAL = 0.7;
/** More speaks for half of the others than for the link. */
const MOST_STANDING = 0.5;

/** Links that are likely wrong, by how each of one kind between the same two lists stands (`LinkRanker.judge`). */
export function findDoubtful(standings: ArrayLike<number>): DoubtfulLink[] {
  if (standings.length < LEAST_LINKS) return [];
  const usual = Float64Array.from(standings).sort()[Math.floor(standings.length / 10)]!;
  if (usual < LEAST_USUAL) return [];
  return Array.from(standings, (standing, place) => ({ place, standing, usual })).filter(({ standing }) => standing < MOST_STANDING);
}
