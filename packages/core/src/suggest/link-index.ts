import type { KnownLinks, RankedItem } from './candidate.js';
import { largest } from './sums.js';

/** Those that are linked most often are always looked at. */
const USUAL = 20;
const NOTHING: ReadonlySet<number> = new Set();

/** The links that are there between two lists, and what they tell of pairs that are not linked. */
export class LinkIndex {
  private readonly out = new Map<number, Set<number>>();
  /** Items of the left that each of the right is linked with. */
  in: (readonly number[])[] = [];
  /** How often each of the right is linked, as a logarithm. */
  often = new Float32Array(0);
  /** Items of the right that are linked most often. */
  usual: Int32Array = new Int32Array(0);
  around: KnownLinks['around'];
  /** Items of the right that are linked with each other item. */
  private readonly aroundRight = new Map<number, number[]>();

  constructor(
    private readonly left: readonly RankedItem[],
    private readonly right: readonly RankedItem[],
  ) {}

  know({ links, around }: KnownLinks): void {
    const into: number[][] = Array.from(this.right, () => []);
    this.out.clear();
    for (const [from, to] of links) {
      let known = this.out.get(from);
      if (!known) this.out.set(from, (known = new Set()));
      if (known.has(to)) continue;
      known.add(to);
      into[to]!.push(from);
    }
    this.in = into;
    this.often = Float32Array.from(into, ({ length }) => Math.log(1 + length));
    this.usual = largest(Int32Array.from(into.keys()), into.length, this.often, USUAL).filter((to) => this.often[to]! > 0);
    this.around = around;
    this.aroundRight.clear();
    around?.right.forEach((others, to) => {
      for (const other of new Set(others)) {
        const known = this.aroundRight.get(other);
        if (known) known.push(to);
        else this.aroundRight.set(other, [to]);
      }
    });
  }

  get isEmpty(): boolean {
    return this.out.size === 0;
  }

  linkedWith(from: number): ReadonlySet<number> {
    return this.out.get(from) ?? NOTHING;
  }

  /** Others around an item of the left, each once. */
  aroundLeft(from: number): ReadonlySet<number> {
    return this.around ? new Set(this.around.left[from]) : NOTHING;
  }

  /** Items of the right that are linked with another item. */
  besideOther(other: number): readonly number[] {
    return this.aroundRight.get(other) ?? [];
  }

  /** How often a link counts as if it were not there. */
  oftenWithout(from: number, to: number): number {
    return this.linkedWith(from).has(to) ? Math.log(this.in[to]!.length) : this.often[to]!;
  }

  /** How many that stand beside `from` are linked with `to`; no more than `most` are counted. */
  countBeside(from: number, to: number, most = Number.POSITIVE_INFINITY): number {
    const { parent } = this.left[from]!;
    if (parent < 0) return 0;
    let count = 0;
    for (const like of this.in[to]!) if (like !== from && this.left[like]!.parent === parent && ++count >= most) break;
    return count;
  }

  /** How many that stand beside `to` are linked with `from`. */
  countBesideKnown(from: number, to: number, most = Number.POSITIVE_INFINITY): number {
    const { parent } = this.right[to]!;
    if (parent < 0) return 0;
    let count = 0;
    for (const known of this.linkedWith(from)) if (known !== to && this.right[known]!.parent === parent && ++count >= most) break;
    return count;
  }

  /** Others that both are linked with; those that are linked with many tell less (Adamic and Adar, "Friends and neighbors on the Web", 2003). */
  weighCommon(own: ReadonlySet<number>, from: number, to: number): number {
    const [all, others] = [this.around?.left[from] ?? [], this.around?.right[to] ?? []];
    if (all.length === 0 || others.length === 0) return 0;
    return this.countCommon(own, to) / Math.log(2 + all.length + others.length);
  }

  countCommon(own: ReadonlySet<number>, to: number): number {
    const found = new Set<number>();
    for (const other of this.around?.right[to] ?? []) if (own.has(other)) found.add(other);
    return found.size;
  }
}

/** Items by what they stand in. */
export function childrenOf(items: readonly RankedItem[]): Map<number, number[]> {
  const children = new Map<number, number[]>();
  items.forEach(({ parent }, index) => {
    if (parent < 0) return;
    const known = children.get(parent);
    if (known) known.push(index);
    else children.set(parent, [index]);
  });
  return children;
}
