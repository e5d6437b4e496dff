import type { KindRole } from '../../../scheme/role-names.js';
import { type MadeDefinition, type MadeGraph, type MadeNode, MOST_MADE } from '../made-graph.js';
import type { MadeGround } from '../made-ground.js';
import { describeNode } from './describe-node.js';
import { EdgeJoiner } from './join-edges.js';
import { findScope } from './made-sort.js';

/** Items of some roles in a scope, with the links among them. `insideOf` puts some of them into a node. */
export function buildAmong(
  ground: MadeGround,
  { about, detail }: MadeDefinition,
  roles: readonly KindRole[],
  frame?: { node: MadeNode; holds: (node: number) => boolean },
): MadeGraph | undefined {
  const scope = findScope(ground, about);
  if (!scope) return undefined;
  const graph: MadeGraph = { nodes: frame ? [frame.node] : [], edges: [], isTree: false, cut: false };
  const indexOf = new Map<number, number>();
  for (const node of ground.nodes()) {
    if (!scope.has(node) || ground.isHeading(node) || !roles.some((role) => ground.hasRole(node, role))) continue;
    if (graph.nodes.length >= MOST_MADE) {
      graph.cut = true;
      break;
    }
    const inside = frame?.holds(node) ? 0 : -1;
    indexOf.set(node, graph.nodes.push(describeNode(ground, node, detail, { key: ground.idOf(node), inside })) - 1);
  }
  const edges = new EdgeJoiner(ground);
  for (const [node, index] of indexOf)
    for (const link of ground.linksOf(node)) {
      const other = indexOf.get(link.other);
      if (link.out && other !== undefined) edges.add(index, other, link, []);
    }
  graph.edges = edges.finish();
  return graph;
}
