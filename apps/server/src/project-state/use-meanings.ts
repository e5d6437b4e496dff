import { isUseWithin } from '@coomb/core';
import type { UsageValue } from '../ledger/change.js';

type Told = Pick<UsageValue, 'id' | 'itemId' | 'path' | 'meaningSeq' | 'withdrawn'>;

/** When items came to mean what they mean in one of their uses only. */
export class UseMeanings {
  private readonly byItem = new Map<string, Map<string, Told>>();
  private readonly paths = new Map<string, readonly string[]>();

  constructor(usages: readonly Told[]) {
    for (const usage of usages) this.apply(usage);
  }

  apply(usage: Told): void {
    this.paths.set(usage.id, usage.path);
    const known = this.byItem.get(usage.itemId);
    if (usage.meaningSeq > 0 && !usage.withdrawn) {
      if (known) known.set(usage.id, usage);
      else this.byItem.set(usage.itemId, new Map([[usage.id, usage]]));
    } else known?.delete(usage.id);
  }

  pathOf(usage: string | null | undefined): readonly string[] | undefined {
    return usage ? this.paths.get(usage) : undefined;
  }

  /** Number of the newest change of what an item means wherever a link of it holds: in one use, or in each where no path is named. */
  newest(item: { id: string; meaningSeq: number }, path: readonly string[] | undefined): number {
    const told = this.byItem.get(item.id);
    if (!told) return item.meaningSeq;
    let newest = item.meaningSeq;
    for (const one of told.values()) if (one.meaningSeq > newest && (!path || meets(path, one.path))) newest = one.meaningSeq;
    return newest;
  }
}

/** Whether there is a use that both paths lead to. */
export const meets = (a: readonly string[], b: readonly string[]): boolean => isUseWithin(a, b) || isUseWithin(b, a);
