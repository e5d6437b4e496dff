/** What is compared of an item. */
export interface RankedItem {
  title: string;
  text: string;
  /** Index of what it stands in, within its list; −1 for nothing. */
  parent: number;
}

/** Why two items may belong together. Items are told by their indexes. */
export type Reason =
  /** Words that both say, the most telling first. */
  | { sort: 'words'; words: string[] }
  /** One says the title of the other. */
  | { sort: 'title'; words: string[] }
  /** An item like this one is linked with it. */
  | { sort: 'alike'; like: number }
  /** Others that stand beside this one are linked with it, or this one is linked with what stands beside it. */
  | { sort: 'beside'; count: number }
  /** The link stands the other way round. */
  | { sort: 'reverse' }
  /** Both are linked with the same others. */
  | { sort: 'common'; count: number }
  /** It is linked often. */
  | { sort: 'often'; count: number };

export interface Candidate {
  index: number;
  score: number;
  /** How many of those told so were right, by the links that are there; nothing where there are too few to tell. */
  likelihood: number | null;
  reasons: Reason[];
}

/** What is known of links between the two lists. */
export interface KnownLinks {
  /** Index on the left, index on the right. */
  links: readonly (readonly [number, number])[];
  /** Pairs that somebody looked at and refused. */
  refused?: readonly (readonly [number, number])[];
  /** For each item of the left and of the right, other items that it is linked with by links of any kind, by numbers that both sides share. */
  around?: { left: readonly (readonly number[])[]; right: readonly (readonly number[])[] };
}
