import type { MadeGraph, MadeNode } from '../made-graph.js';
import { MOST_MADE } from '../made-graph.js';
import { addToGroup } from '../../../group-by.js';
import type { MadeGround } from '../made-ground.js';
import { EdgeJoiner } from './join-edges.js';
import type { MadeSortOf } from './made-sort.js';

/** Which collections and packages depend on which: each link counts for what holds its ends. */
export const overviewSort: MadeSortOf = {
  sort: 'overview',
  label: 'Overview',
  explains: 'which collections and packages depend on which; it keeps itself',
  about: 'scope',
  hasLevels: false,
  build: (ground, { about }) => {
    const only = ground.collections.findIndex(({ id }) => id === about);
    if (about !== '' && only < 0) return undefined;
    const graph: MadeGraph = { nodes: [], edges: [], isTree: false, cut: false };
    const holderOf = new Map<number, number>();
    const boxes = new Map<string, number>();
    const counts = new Map<number, number>();
    const box = (key: string, node: Omit<MadeNode, 'key' | 'parts' | 'branch'>): number => {
      let index = boxes.get(key);
      if (index === undefined) {
        index = graph.nodes.push({ key, parts: [], branch: -1, ...node }) - 1;
        boxes.set(key, index);
      }
      return index;
    };
    const isHolder = (node: number) => ground.isHeading(node) || ground.hasRole(node, 'package');
    const alone = findAlone(ground, isHolder);
    for (const node of ground.nodes()) {
      const at = ground.collectionOf(node);
      if (only >= 0 && at !== only) continue;
      if (graph.nodes.length >= MOST_MADE) return { ...graph, cut: true };
      const { id, name } = ground.collections[at]!;
      const collection = box(id, { item: -1, name, keyword: '', figure: 'package', inside: -1 });
      // Packages and sections at the top of a collection are boxes in it; one that holds all the others tells nothing.
      const above = [node];
      for (let up = ground.parentOf(node); up >= 0; up = ground.parentOf(up)) above.unshift(up);
      const top = above.find((one) => !alone.has(one)) ?? above[0]!;
      const isBox = isHolder(top);
      const holder = isBox ? box(ground.idOf(top), { item: top, name: ground.titleOf(top), keyword: '', figure: 'package', inside: collection }) : collection;
      holderOf.set(node, holder);
      if (!ground.isHeading(node)) counts.set(holder, (counts.get(holder) ?? 0) + 1);
    }
    const edges = new EdgeJoiner(ground);
    for (const [node, holder] of holderOf)
      for (const link of ground.linksOf(node)) {
        const other = holderOf.get(link.other);
        // What a box holds is not told of the box itself, nor a box of the one that it lies in.
        if (!link.out || other === undefined || other === holder || graph.nodes[other]!.inside === holder || graph.nodes[holder]!.inside === other) continue;
        edges.add(holder, other, { ...link, phrase: '' }, [node]);
      }
    graph.edges = edges.finish().map((edge) => ({ ...edge, label: String(edge.links.length) }));
    graph.nodes.forEach((node, index) => {
      const count = counts.get(index) ?? 0;
      node.keyword = count === 1 ? '1 item' : count > 1 ? `${count} items` : '';
    });
    return graph;
  },
};

/** Packages and sections that hold everything else of their collection, and those in them of which the same is true. */
function findAlone(ground: MadeGround, isHolder: (node: number) => boolean): Set<number> {
  const tops = new Map<number, number[]>();
  for (const node of ground.nodes()) if (ground.parentOf(node) < 0 && !ground.hasRole(node, 'drawing')) addToGroup(tops, ground.collectionOf(node), node);
  const alone = new Set<number>();
  for (const list of tops.values())
    for (let level: readonly number[] = list; level.length === 1 && isHolder(level[0]!); ) {
      const below = ground.childrenOf(level[0]!).filter((node) => !ground.hasRole(node, 'drawing'));
      if (!below.some(isHolder)) break;
      alone.add(level[0]!);
      level = below;
    }
  return alone;
}
