import { addToGroup, type UsageEnds } from '@coomb/core';
import type { UsageValue } from '../ledger/change.js';
import type { LightItem } from './light-item.js';
import type { LinkTable } from './link-table.js';

interface Ground {
  items: readonly LightItem[];
  nodeOf: ReadonlyMap<string, number>;
  links: LinkTable;
}

/** The usages of a project: paths of parts down to an item, and which links hold in one of them only. */
export class ProjectUsages {
  private readonly byId = new Map<string, UsageValue>();
  private endsNow: UsageEnds | undefined;

  constructor(
    usages: readonly UsageValue[],
    private readonly ground: Ground,
  ) {
    for (const usage of usages) this.byId.set(usage.id, usage);
  }

  get size(): number {
    return this.byId.size;
  }

  /** All of them, withdrawn ones too, in the order in which they were made. */
  values(): IterableIterator<UsageValue> {
    return this.byId.values();
  }

  apply(usage: UsageValue): void {
    this.byId.set(usage.id, usage);
    this.forget();
  }

  /** After links or items changed: which ends hold where is looked at anew. */
  forget(): void {
    this.endsNow = undefined;
  }

  /** Usages in which links hold, numbered from 1, and which links hold in one only; nothing while no usage is known. */
  ends(): UsageEnds | undefined {
    if (this.byId.size === 0) return undefined;
    if (this.endsNow) return this.endsNow;
    const { nodeOf, links } = this.ground;
    const numbers = new Map<string, number>();
    const ofItem = new Map<number, number[]>();
    for (const { id, itemId, withdrawn } of this.byId.values()) {
      const node = nodeOf.get(itemId);
      numbers.set(id, numbers.size + 1);
      if (node !== undefined && !withdrawn) addToGroup(ofItem, node, numbers.get(id)!);
    }
    const usageAt = (link: number, node: number) => {
      const usage = links.usageOf(link);
      const id = usage && (links.graph.from[link] === node ? usage.from : usage.to);
      return id ? (numbers.get(id) ?? 0) : 0;
    };
    this.endsNow = { usageAt, usagesOf: (node) => ofItem.get(node) ?? [] };
    return this.endsNow;
  }

  /** Those of an item that are known, in the order in which they were made. */
  of(item: string): UsageValue[] {
    return [...this.byId.values()].filter((usage) => usage.itemId === item && !usage.withdrawn);
  }

  /** Number of a usage among all, as coverage counts them. */
  numberOf(id: string): number {
    return [...this.byId.keys()].indexOf(id) + 1;
  }

  /** Ids of items from a root down to it; empty for one that is not known. */
  pathOf(id: string): readonly string[] {
    return this.byId.get(id)?.path ?? [];
  }

  /** How a path of parts reads: "Larkbeck weir › Gate 1 › Drive". */
  say(id: string): string {
    const { items, nodeOf } = this.ground;
    return (this.byId.get(id)?.path ?? []).map((item) => items[nodeOf.get(item) ?? -1]?.title ?? '').join(' › ');
  }
}
