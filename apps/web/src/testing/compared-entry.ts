import type { ComparedEntry } from '@coomb/contract';

/** An entry of a comparison that says nothing but what is changed of it. */
export const comparedEntry = (change: Partial<ComparedEntry> = {}): ComparedEntry => ({
  id: 't0',
  sort: 'changed',
  conflict: false,
  mine: null,
  theirs: null,
  match: null,
  fields: [],
  linksAdded: [],
  linksRemoved: [],
  place: null,
  ...change,
});
