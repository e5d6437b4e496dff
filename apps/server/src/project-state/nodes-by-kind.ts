import { addToGroup } from '@coomb/core';
import type { LightItem } from './light-item.js';

const kindCounted = (item: LightItem | undefined) => (item && !item.withdrawn && !item.heading ? item.kind : undefined);

/** Nodes of items that are present and no headings, by kind: listed when first asked for, then following every change. */
export class NodesByKind {
  private byKind: Map<string, number[]> | undefined;
  /** Nodes of several kinds together, put together when first asked for. */
  private readonly joined = new Map<string, readonly number[]>();

  constructor(private readonly items: readonly LightItem[]) {}

  /** In ascending order. */
  of(kinds: readonly string[]): readonly number[] {
    const byKind = this.list();
    if (kinds.length === 1) return byKind.get(kinds[0]!) ?? [];
    const name = kinds.join(' ');
    let joined = this.joined.get(name);
    if (!joined) this.joined.set(name, (joined = Array.from(Uint32Array.from(kinds.flatMap((kind) => byKind.get(kind) ?? [])).sort())));
    return joined;
  }

  /** Follows an item that is new or came to be something else. */
  follow(before: LightItem | undefined, node: number): void {
    if (!this.byKind) return;
    const [was, is] = [kindCounted(before), kindCounted(this.items[node])];
    if (was === is) return;
    this.joined.clear();
    if (was !== undefined) {
      const nodes = this.byKind.get(was)!;
      nodes.splice(nodes.indexOf(node), 1);
    }
    if (is === undefined) return;
    const nodes = this.byKind.get(is);
    if (!nodes) this.byKind.set(is, [node]);
    else {
      let at = nodes.length;
      while (at > 0 && nodes[at - 1]! > node) at--;
      nodes.splice(at, 0, node);
    }
  }

  forget(): void {
    this.byKind = undefined;
    this.joined.clear();
  }

  private list(): Map<string, number[]> {
    if (this.byKind) return this.byKind;
    this.byKind = new Map();
    for (const [node, item] of this.items.entries()) {
      const kind = kindCounted(item);
      if (kind !== undefined) addToGroup(this.byKind, kind, node);
    }
    return this.byKind;
  }
}
