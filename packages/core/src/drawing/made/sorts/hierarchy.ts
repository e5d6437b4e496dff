import { type MadeGraph, MOST_MADE } from '../made-graph.js';
import { describeNode } from './describe-node.js';
import { findItem, type MadeSortOf } from './made-sort.js';

/** What stands below what in the outline: below an item, or in a collection. */
export const hierarchySort: MadeSortOf = {
  sort: 'hierarchy',
  label: 'Hierarchy',
  explains: 'what stands below an item or in a collection, as the outline has it',
  about: 'scope',
  hasLevels: true,
  build: (ground, { about, levels, detail }) => {
    const collection = ground.collections.findIndex(({ id }) => id === about);
    const root = collection >= 0 ? undefined : findItem(ground, about);
    if (collection < 0 && root === undefined) return undefined;
    const graph: MadeGraph = { nodes: [], edges: [], isTree: true, cut: false };
    const queue: { node: number; index: number; depth: number }[] = [];
    const add = (node: number, branch: number, depth: number) => {
      const index = graph.nodes.push(describeNode(ground, node, detail, { key: ground.idOf(node), branch })) - 1;
      if (branch >= 0) graph.edges.push({ from: branch, to: index, label: '', links: [], derived: false, suspect: false, start: 'none', end: 'none' });
      queue.push({ node, index, depth });
    };
    if (root === undefined) {
      const { id, name } = ground.collections[collection]!;
      graph.nodes.push({ key: id, item: -1, name, keyword: 'collection', figure: 'package', parts: [], branch: -1, inside: -1 });
      for (const node of ground.nodes())
        if (ground.collectionOf(node) === collection && ground.parentOf(node) < 0 && !ground.hasRole(node, 'drawing')) add(node, 0, 1);
    } else add(root, -1, 0);
    for (let at = 0; at < queue.length; at++) {
      const { node, index, depth } = queue[at]!;
      if (depth >= levels) continue;
      for (const child of ground.childrenOf(node)) {
        if (ground.hasRole(child, 'drawing')) continue;
        if (graph.nodes.length >= MOST_MADE) return { ...graph, cut: true };
        add(child, index, depth + 1);
      }
    }
    return graph;
  },
};
