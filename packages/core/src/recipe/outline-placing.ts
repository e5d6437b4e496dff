/** Finds what an item stands below, by outline numbers (3.2.1 below 3.2), levels, or how far it is set in. */
export class OutlinePlacing {
  private readonly byNumber = new Map<string, number>();
  /** Open items by how deep they stand. */
  private readonly open: { depth: number; key: number }[] = [];

  /** `numbered`: single digits are outline numbers as well, not levels. */
  constructor(private readonly numbered: boolean) {}

  /** Key of the parent; undefined where the number, or the depth without one, tells none. */
  place(key: number, number: string, depth?: number): number | undefined {
    const clean = number.trim().replace(/\.$/, '');
    if (isOutlineNumber(clean) || (/^\d+$/.test(clean) && this.numbered)) return this.byOutlineNumber(key, clean);
    const own = /^\d+$/.test(clean) ? Number(clean) : depth;
    if (own === undefined) return undefined;
    while (this.open.length && this.open.at(-1)!.depth >= own) this.open.pop();
    const parent = this.open.at(-1)?.key;
    this.open.push({ depth: own, key });
    return parent;
  }

  /** Levels begin anew, as below a row across the table. */
  restart(): void {
    this.open.length = 0;
  }

  private byOutlineNumber(key: number, number: string): number | undefined {
    let parent: number | undefined;
    for (let up = number; parent === undefined && up.includes('.'); ) {
      up = up.slice(0, up.lastIndexOf('.'));
      parent = this.byNumber.get(up);
    }
    this.byNumber.set(number, key);
    return parent;
  }
}

export function isOutlineNumber(text: string): boolean {
  return /^\d+(\.\d+)+\.?$/.test(text.trim());
}
