import { Composition } from '../../../composition/composition.js';
import { type MadeGraph, MOST_MADE } from '../made-graph.js';
import { describeNode } from './describe-node.js';
import { EdgeJoiner } from './join-edges.js';
import { findItem, type MadeSortOf } from './made-sort.js';

/** The system, what is outside and meets it, and what passes between. */
export const contextSort: MadeSortOf = {
  sort: 'context',
  label: 'Context',
  explains: 'the system, what is outside, and what passes between them',
  about: 'component',
  hasLevels: false,
  build: (ground, { about, detail }) => {
    const root = findItem(ground, about);
    if (root === undefined) return undefined;
    const inside = findInside(ground, root);
    const graph: MadeGraph = { nodes: [], edges: [], isTree: false, cut: false };
    graph.nodes.push(describeNode(ground, root, detail, { key: ground.idOf(root) }));
    const indexOf = new Map([[root, 0]]);
    const isOutside = (node: number) =>
      !inside.has(node) && (['actor', 'component', 'interface', 'part'] as const).some((role) => ground.hasRole(node, role)) && !ground.isHeading(node);
    const edges = new EdgeJoiner(ground);
    for (const node of inside)
      for (const link of ground.linksOf(node)) {
        if (!isOutside(link.other)) continue;
        let index = indexOf.get(link.other);
        if (index === undefined) {
          if (graph.nodes.length >= MOST_MADE) return { ...graph, edges: edges.finish(), cut: true };
          index = graph.nodes.push(describeNode(ground, link.other, detail, { key: ground.idOf(link.other) })) - 1;
          indexOf.set(link.other, index);
        }
        const inner = node === root ? [] : [node];
        if (link.out) edges.add(0, index, link, inner);
        else edges.add(index, 0, { ...link }, inner);
      }
    return { ...graph, edges: edges.finish() };
  },
};

/** A system with all that it is made of, and what stands below each. */
function findInside(ground: Parameters<MadeSortOf['build']>[0], root: number): Set<number> {
  const composition = new Composition(ground);
  const found = new Set<number>();
  const open = [root];
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    if (found.has(node)) continue;
    found.add(node);
    const type = ground.typeOf(node);
    open.push(...composition.rowsOf(node), ...ground.childrenOf(node), ...(type < 0 ? [] : [type]));
  }
  return found;
}
