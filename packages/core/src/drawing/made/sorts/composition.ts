import { Composition } from '../../../composition/composition.js';
import { type MadeGraph, type MadeNode, MOST_MADE } from '../made-graph.js';
import { describeNode } from './describe-node.js';
import { findItem, type MadeSortOf } from './made-sort.js';

/** What a system is made of, level by level. What contains itself is shown once more and not followed. */
export const compositionSort: MadeSortOf = {
  sort: 'composition',
  label: 'Composition',
  explains: 'what a system is made of, use by use',
  about: 'component',
  hasLevels: true,
  build: (ground, { about, levels, detail }) => {
    const root = findItem(ground, about);
    if (root === undefined) return undefined;
    const composition = new Composition(ground);
    const graph: MadeGraph = { nodes: [], edges: [], isTree: true, cut: false };
    // Ports and values stand inside their nodes, where they are asked for.
    const isNode = (node: number) => !ground.hasRole(node, 'port') && !ground.hasRole(node, 'value');
    const above: ReadonlySet<number>[] = [];
    const add = (node: number, key: string, branch: number, depth: number): void => {
      const described: MadeNode = describeNode(ground, node, detail, { key, branch });
      const index = graph.nodes.push(described) - 1;
      const over = branch < 0 ? new Set<number>() : above[branch]!;
      const type = ground.typeOf(node);
      if (branch >= 0) graph.edges.push({ from: branch, to: index, label: '', links: [], derived: false, suspect: false, start: 'filledDiamond', end: 'none' });
      const repeats = composition.repeats(node, over);
      above.push(new Set([...over, node, ...(type < 0 ? [] : [type])]));
      if (repeats) described.keyword = 'repeats what it stands in';
      else queue.push({ index, node, key, depth });
    };
    const queue: { index: number; node: number; key: string; depth: number }[] = [];
    add(root, ground.idOf(root), -1, 0);
    // Level by level, so that a drawing that is cut is cut at its leaves.
    for (let at = 0; at < queue.length; at++) {
      const { index, node, key, depth } = queue[at]!;
      if (depth >= levels) continue;
      for (const row of composition.rowsOf(node).filter(isNode)) {
        if (graph.nodes.length >= MOST_MADE) return { ...graph, cut: true };
        add(row, `${key},${ground.idOf(row)}`, index, depth + 1);
      }
    }
    return graph;
  },
};
