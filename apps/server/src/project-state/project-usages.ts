import { addToGroup, type FieldValue, findUsePaths, isUseWithin, linkKindsOfRole, type UsageEnds } from '@coomb/core';
import type { UsageValue } from '../ledger/change.js';
import { findWholes, type WholesGround } from './find-wholes.js';
import type { LinkTable } from './link-table.js';

interface Ground {
  whole: () => WholesGround;
  links: LinkTable;
}

/** One way in which an item is used. */
export interface KnownUse {
  /** Null for a path that nothing was said of yet. */
  id: string | null;
  /** Ids of items from a root down to the item itself. */
  path: readonly string[];
  number: number;
  /** The path leads there no more. */
  gone: boolean;
}

/** Paths in the order in which their parts stand. */
function compareBy(rankOf: (id: string) => number, a: readonly string[], b: readonly string[]): number {
  for (let at = 0; at < Math.min(a.length, b.length); at++) if (a[at] !== b[at]) return rankOf(a[at]!) - rankOf(b[at]!) || (a[at]! < b[at]! ? -1 : 1);
  return a.length - b.length;
}

/** The usages of a project: paths of parts down to an item, which links hold in one of them only, and what is said of an item there only. */
export class ProjectUsages {
  private readonly byId = new Map<string, UsageValue>();
  private endsNow: UsageEnds | undefined;
  /** Usages by their number, which is one more than the place; those that are stored first, in the order in which they were made. */
  private paths: (readonly string[])[] = [];
  private numbers = new Map<string, number>();
  private readonly usesOf = new Map<string, KnownUse[]>();

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
    this.paths = [];
    this.numbers = new Map();
    this.usesOf.clear();
  }

  /** Usages in which links hold, numbered from 1, and which links hold in one only; nothing while no usage is known. */
  ends(): UsageEnds | undefined {
    if (this.byId.size === 0) return undefined;
    if (this.endsNow) return this.endsNow;
    const { links } = this.ground;
    const asked = new Set<string>();
    for (const { itemId, withdrawn } of this.byId.values()) if (!withdrawn) asked.add(itemId);
    const ofItem = new Map<number, number[]>();
    const numberOfId = new Map([...this.byId.values()].map(({ id, path }) => [id, this.numberOf(path)] as const));
    for (const item of asked) {
      const node = this.ground.whole().nodeOf.get(item);
      if (node !== undefined) for (const { number } of this.of(item)) addToGroup(ofItem, node, number);
    }
    const usageAt = (link: number, node: number) => {
      const usage = links.usageOf(link);
      const id = usage && (links.graph.from[link] === node ? usage.from : usage.to);
      return id ? (numberOfId.get(id) ?? 0) : 0;
    };
    const meet = (a: number, b: number) => {
      const [one, other] = [this.paths[a - 1]!, this.paths[b - 1]!];
      return isUseWithin(one, other) || isUseWithin(other, one);
    };
    this.endsNow = { usageAt, usagesOf: (node) => ofItem.get(node) ?? [], meet };
    return this.endsNow;
  }

  /** Every way in which an item is used, from what is used in nothing down to it; behind them stored ones that lead there no more. */
  of(item: string): KnownUse[] {
    const known = this.usesOf.get(item);
    if (known) return known;
    const whole = this.ground.whole();
    const node = whole.nodeOf.get(item);
    const rankOf = (id: string) => whole.items[whole.nodeOf.get(id)!]!.rank;
    const found = node === undefined ? [] : findUsePaths((one) => findWholes(whole, one), node).paths.map((path) => path.map((one) => whole.items[one]!.id));
    found.sort((a, b) => compareBy(rankOf, a, b));
    const stored = [...this.byId.values()].filter((usage) => usage.itemId === item && !usage.withdrawn);
    const idOf = new Map(stored.map((usage) => [usage.path.join(' '), usage.id]));
    const uses = found.map((path): KnownUse => ({ id: idOf.get(path.join(' ')) ?? null, path, number: this.numberOf(path), gone: false }));
    for (const { id, path } of stored) if (!found.some((one) => isUseWithin(one, path))) uses.push({ id, path, number: this.numberOf(path), gone: true });
    this.usesOf.set(item, uses);
    return uses;
  }

  /** Whether anything of an item was said in one of its usages only. */
  isTold(item: string): boolean {
    for (const { itemId, withdrawn } of this.byId.values()) if (itemId === item && !withdrawn) return true;
    return false;
  }

  /** Uses in which a question is asked of an item: all of them, once something holds in one only. */
  asked(item: string): readonly KnownUse[] {
    return this.isTold(item) ? this.of(item) : [];
  }

  /** Number of a path among all usages, as coverage counts them. */
  numberOf(path: readonly string[]): number {
    const key = path.join(' ');
    let number = this.numbers.get(key);
    if (number === undefined) this.numbers.set(key, (number = this.paths.push(path)));
    return number;
  }

  /** Ids on the path of a usage by its number. */
  pathOfNumber(number: number): readonly string[] {
    return this.paths[number - 1] ?? [];
  }

  /** The stored usage of a path, if there is one. */
  find(path: readonly string[]): UsageValue | undefined {
    const key = path.join(' ');
    for (const usage of this.byId.values()) if (!usage.withdrawn && usage.path.join(' ') === key) return usage;
    return undefined;
  }

  get(id: string): UsageValue | undefined {
    return this.byId.get(id);
  }

  /** Ids of items from a root down to it; empty for one that is not known. */
  pathOf(id: string): readonly string[] {
    return this.byId.get(id)?.path ?? [];
  }

  /** What an item's fields say in a use and nowhere else: of the longest path first. */
  fieldsIn(path: readonly string[]): Record<string, FieldValue> {
    const item = path.at(-1);
    const told = [...this.byId.values()].filter((usage) => usage.itemId === item && !usage.withdrawn && isUseWithin(path, usage.path));
    told.sort((a, b) => a.path.length - b.path.length);
    return Object.assign({}, ...told.map((usage) => usage.fields));
  }

  /** How a path of parts reads: "Larkbeck weir › Gate 1 › Drive". What a part on the way is a use of is left out. */
  say(id: string): string {
    return this.sayPath(this.pathOf(id));
  }

  sayPath(path: readonly string[]): string {
    const { items, nodeOf, graph, scheme } = this.ground.whole();
    const typing = new Set(linkKindsOfRole(scheme, 'types').map((kind) => scheme.linkKinds.indexOf(kind)));
    const nodes = path.map((id) => nodeOf.get(id) ?? -1);
    const isTypeOf = (node: number, part: number) =>
      part >= 0 && graph.findLinks(part, 'out').some((link) => graph.to[link] === node && typing.has(graph.kind[link]!));
    const told = nodes.filter((node, at) => at === 0 || at === nodes.length - 1 || !isTypeOf(node, nodes[at - 1]!));
    return told.map((node) => items[node]?.title ?? '').join(' › ');
  }
}
