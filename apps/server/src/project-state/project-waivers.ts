import type { WaiverValue } from '../ledger/change.js';

/** What was accepted, with a reason and perhaps until a day. */
export class ProjectWaivers {
  private readonly byId: Map<string, WaiverValue>;

  constructor(
    rows: readonly WaiverValue[],
    private readonly day: () => string,
  ) {
    this.byId = new Map(rows.map((row) => [row.id, row]));
  }

  apply(row: WaiverValue): void {
    this.byId.set(row.id, row);
  }

  get(id: string): WaiverValue | undefined {
    return this.byId.get(id);
  }

  /** All of them, also those withdrawn or over. */
  values(): MapIterator<WaiverValue> {
    return this.byId.values();
  }

  /** Whether a waiver holds today. */
  isActive(waiver: WaiverValue): boolean {
    return !waiver.withdrawn && (waiver.until === null || waiver.until >= this.day());
  }

  /** Ids of the items with an active waiver of a rule. */
  itemsWaived(rule: string): Set<string> {
    return new Set(
      [...this.byId.values()].filter((waiver) => waiver.finding === null && waiver.rule === rule && this.isActive(waiver)).map(({ itemId }) => itemId),
    );
  }

  /** Ids of the items with a waiver that holds until a day. */
  itemsUntilADay(): string[] {
    return [...this.byId.values()].flatMap(({ until, itemId }) => (until === null ? [] : [itemId]));
  }
}
