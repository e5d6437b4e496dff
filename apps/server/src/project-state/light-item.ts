import type { ItemValue } from '../ledger/change.js';

/** What memory keeps of an item; its text stays in the database. */
export type LightItem = Pick<
  ItemValue,
  'id' | 'collectionId' | 'kind' | 'reference' | 'title' | 'heading' | 'parentId' | 'rank' | 'withdrawn' | 'meaningSeq' | 'revision' | 'bindings' | 'node'
>;
