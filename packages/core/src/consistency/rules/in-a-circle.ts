import { addToGroup } from '../../group-by.js';
import { buildDirectedRows, findStrongComponents } from '../../structure/strong-components.js';
import { type ConsistencyGround, type ConsistencyRule, forEachLiveLink, kindsWithRoles, type RuleFinding } from '../consistency-rule.js';

/** Roles that say that one rests on the other: nothing rests on itself. */
export const restingRoles = ['derives', 'refines', 'satisfies', 'realises', 'composes', 'types', 'allocates'] as const;

/** Live links of the resting kinds between present items, one kind apart from another, with the circles among them. */
export function findCircles(ground: ConsistencyGround): { nodes: number[]; links: number[] }[] {
  const { graph, items } = ground;
  const resting = kindsWithRoles(ground, restingRoles);
  const byKind = new Map<number, number[]>();
  forEachLiveLink(ground, (link, from, to) => {
    if (resting[graph.kind[link]!] && !items[from]!.withdrawn && !items[to]!.withdrawn) addToGroup(byKind, graph.kind[link]!, link);
  });
  return [...byKind.values()].flatMap((links) => {
    const from = links.map((link) => graph.from[link]!);
    const to = links.map((link) => graph.to[link]!);
    const rows = buildDirectedRows(graph.nodes, from, to);
    const { of, count } = findStrongComponents(graph.nodes, rows);
    const size = new Uint32Array(count);
    for (const component of of) size[component]!++;
    const inside = new Map<number, number[]>();
    for (const link of links) {
      const component = of[graph.from[link]!]!;
      if (component === of[graph.to[link]!] && (size[component]! > 1 || graph.from[link] === graph.to[link])) addToGroup(inside, component, link);
    }
    return [...inside.values()].map((within) => shortestCircle(ground, within));
  });
}

/** The shortest circle that goes through the first link of a strongly connected part. */
function shortestCircle({ graph }: ConsistencyGround, links: readonly number[]): { nodes: number[]; links: number[] } {
  const out = new Map<number, number[]>();
  for (const link of links) addToGroup(out, graph.from[link]!, link);
  const first = links[0]!;
  const [begin, goal] = [graph.to[first]!, graph.from[first]!];
  const came = new Map<number, number>([[begin, -1]]);
  const queue = [begin];
  for (let at = 0; at < queue.length && !came.has(goal); at++)
    for (const link of out.get(queue[at]!) ?? []) {
      const other = graph.to[link]!;
      if (came.has(other)) continue;
      came.set(other, link);
      queue.push(other);
    }
  const way: number[] = [];
  for (let node = goal; node !== begin; node = graph.from[way[0]!]!) way.unshift(came.get(node)!);
  const all = [first, ...way];
  return { links: all, nodes: all.map((link) => graph.from[link]!) };
}

export const inACircle: ConsistencyRule = {
  id: 'in-a-circle',
  label: 'Rests on itself',
  explains: 'Following one kind of link leads back to where one began: nothing in the circle has a ground outside it.',
  weight: 'wrong',
  find: (ground) =>
    findCircles(ground)
      // Two that point at each other are told by another rule.
      .filter(({ links }) => links.length !== 2)
      .map(({ nodes, links }): RuleFinding => {
        const phrase = ground.scheme.linkKinds[ground.graph.kind[links[0]!]!]!.phrase;
        const told = nodes.slice(1, 6).map((node) => ground.items[node]!.reference);
        const more = nodes.length > 6 ? ` and ${nodes.length - 6} more` : '';
        const says = links.length === 1 ? `${phrase} itself` : `${phrase} itself, by way of ${told.join(', ')}${more}`;
        return { nodes, links, says, mendings: links.length === 1 ? [{ sort: 'removeLink', link: links[0]! }] : [] };
      }),
  examples: {
    fires: [
      {
        items: { 'SYS-1': 'requirement', 'SYS-2': 'requirement', 'SYS-3': 'requirement' },
        links: [
          ['SYS-1', 'derives', 'SYS-2'],
          ['SYS-2', 'derives', 'SYS-3'],
          ['SYS-3', 'derives', 'SYS-1'],
        ],
      },
    ],
    silent: [
      {
        items: { 'SYS-1': 'requirement', 'SYS-2': 'requirement', 'SYS-3': 'requirement' },
        links: [
          ['SYS-1', 'derives', 'SYS-2'],
          ['SYS-2', 'derives', 'SYS-3'],
          ['SYS-1', 'derives', 'SYS-3'],
        ],
      },
      // Components may need one another.
      {
        items: { 'MOD-1': 'component', 'MOD-2': 'component', 'MOD-3': 'component' },
        links: [
          ['MOD-1', 'depends', 'MOD-2'],
          ['MOD-2', 'depends', 'MOD-3'],
          ['MOD-3', 'depends', 'MOD-1'],
        ],
      },
    ],
  },
};
