import type { Collection } from '@coomb/contract';
import { findKind, type Scheme } from '@coomb/core';
import type { CollectionValue, SetValue } from '../ledger/change.js';
import type { LightItem } from './light-item.js';

/** What items lie in: collections, in the order of their layers, and the sets that these stand in. */
export class ProjectContents {
  constructor(
    private readonly scheme: () => Scheme,
    /** All of them, also those withdrawn, in no order. */
    public collections: readonly CollectionValue[],
    public sets: readonly SetValue[],
  ) {}

  applyCollection(row: CollectionValue): void {
    this.collections = [...this.collections.filter((one) => one.id !== row.id), row];
  }

  applySet(row: SetValue): void {
    this.sets = [...this.sets.filter((one) => one.id !== row.id), row];
  }

  liveCollections(): CollectionValue[] {
    const setRank = new Map(this.sets.map((set) => [set.id, set.rank]));
    const ofSet = ({ setId }: CollectionValue) => (setId === null ? -1 : (setRank.get(setId) ?? -1));
    return this.collections
      .filter((collection) => !collection.withdrawn)
      .sort((a, b) => this.layerOf(a) - this.layerOf(b) || ofSet(a) - ofSet(b) || a.rank - b.rank);
  }

  liveSets(): SetValue[] {
    return this.sets.filter((set) => !set.withdrawn).sort((a, b) => a.rank - b.rank);
  }

  /** Live collections, each with how many of the items (without sections) it holds. */
  describe(items: readonly LightItem[]): Collection[] {
    const counts = new Map<string, number>();
    for (const item of items) if (!item.withdrawn && !item.heading) counts.set(item.collectionId, (counts.get(item.collectionId) ?? 0) + 1);
    const sets = new Set(this.liveSets().map((set) => set.id));
    return this.liveCollections().map(({ id, name, holds, prefix, kind, withdrawn, setId }) => ({
      ...{ id, name, holds, prefix, kind, withdrawn },
      set: setId !== null && sets.has(setId) ? setId : null,
      items: counts.get(id) ?? 0,
    }));
  }

  private layerOf(collection: CollectionValue): number {
    const scheme = this.scheme();
    const layer = findKind(scheme, collection.kind)?.layer;
    return scheme.layers.findIndex((one) => one.id === layer);
  }
}
