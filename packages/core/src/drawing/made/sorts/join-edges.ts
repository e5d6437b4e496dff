import type { MadeEdge } from '../made-graph.js';
import type { GroundLink, MadeGround } from '../made-ground.js';

/** Links between nodes of a drawing as lines: one for all links of a phrase between two, told apart where they stand for what lies further inside. */
export class EdgeJoiner {
  private readonly edges = new Map<string, MadeEdge & { inside: Set<string> }>();

  constructor(private readonly ground: MadeGround) {}

  /** `inner` says which item of either end the link is really at, where that is not the end itself. */
  add(from: number, to: number, link: GroundLink, inner: readonly number[]): void {
    const key = `${from} ${to} ${link.phrase}`;
    let edge = this.edges.get(key);
    if (!edge) {
      edge = { from, to, label: link.phrase, links: [], derived: true, suspect: false, start: 'none', end: 'arrow', inside: new Set() };
      this.edges.set(key, edge);
    }
    if (edge.links.includes(link.link)) return;
    edge.links.push(link.link);
    edge.suspect ||= link.suspect;
    if (inner.length === 0) edge.derived = false;
    for (const node of inner) edge.inside.add(this.ground.titleOf(node));
  }

  /** With the names of what they stand for, or how many it is. */
  finish(): MadeEdge[] {
    return [...this.edges.values()].map(({ inside, ...edge }) => {
      if (!edge.derived) return edge;
      const names = [...inside];
      return { ...edge, label: names.length > 2 ? `${edge.label} (${edge.links.length})` : `${edge.label}: ${names.join(', ')}` };
    });
  }
}
