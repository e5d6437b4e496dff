import type { Scheme } from '../scheme.js';

/** A section of a first outline, with a note on what belongs there. */
export interface StarterSection {
  heading: string;
  note: string;
}

export interface StarterCollection {
  key: string;
  name: string;
  holds: 'specification' | 'model' | 'tests';
  prefix: string;
  kind: string;
  /** A further set uses the one that is there. */
  shared?: boolean;
  outline: readonly StarterSection[];
}

/** A ready scheme for one sort of work, with collections and a first outline. */
export interface Starter {
  id: string;
  label: string;
  explains: string;
  scheme: Scheme;
  /** In the order of the work. */
  collections: readonly StarterCollection[];
}
