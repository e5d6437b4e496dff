import type { AffectedItem, BodyOf, readImpact, ReplyOf } from '@coomb/contract';
import { type Affected, buildImpact, phraseAt, type Towards } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';

/** Items of one side that are told at most. */
const MOST_TOLD = 2000;

/** What a change of items would touch. */
@Injectable()
export class ImpactService {
  constructor(@Inject(ProjectStates) private readonly states: ProjectStates) {}

  async read(projectId: string, { items, kinds, most }: NonNullable<BodyOf<typeof readImpact>>): Promise<ReplyOf<typeof readImpact>> {
    const state = await this.states.get(projectId);
    const roots = [...new Set(items.map((item) => getNode(state, item)))];
    const { rowOf } = state.outline();
    const side = (towards: Towards) => {
      const affected = buildImpact(state.graph, state.scheme, {
        roots,
        towards,
        mayEnter: (node) => state.isPresent(node),
        ...(kinds && { kinds: new Set(kinds) }),
        ...(most !== undefined && { most }),
        ...(state.usages.ends() && { usages: state.usages.ends()! }),
      });
      const byRank = (one: Affected, other: Affected) =>
        one.distance - other.distance || (other.paths ?? 0) - (one.paths ?? 0) || rowOf[one.node]! - rowOf[other.node]!;
      return {
        total: affected.length,
        items: affected
          .sort(byRank)
          .slice(0, MOST_TOLD)
          .map((one) => describe(state, one)),
      };
    };
    const stale = [...state.verifying.statesIfChanged(roots)]
      .sort(([a], [b]) => rowOf[a]! - rowOf[b]!)
      .map(([node, becomes]) => ({ item: state.brief(node), becomes }));
    return {
      roots: roots.map((node) => state.brief(node)),
      downstream: side('downstream'),
      upstream: side('upstream'),
      stale,
      ...countLinks(state, roots),
    };
  }
}

/** Links at some items that would become suspect, and those that are. */
function countLinks({ graph, items }: ProjectState, nodes: readonly number[]): { suspect: number; already: number } {
  const found = { suspect: new Set<number>(), already: new Set<number>() };
  for (const node of nodes)
    for (const direction of ['out', 'in'] as const)
      graph.forEachLink(node, direction, (link, other) => {
        if (!items[other]!.withdrawn) found[graph.isSuspect(link) ? 'already' : 'suspect'].add(link);
      });
  return { suspect: found.suspect.size, already: found.already.size };
}

function describe(state: ProjectState, { node, distance, nodes, links, paths }: Affected): AffectedItem {
  const { graph, scheme, items } = state;
  return {
    item: state.brief(node),
    distance,
    paths,
    from: items[nodes[0]!]!.reference,
    way: links.map((link, at) => {
      const kind = scheme.linkKinds[graph.kind[link]!]!;
      const usage = state.linkUsage(link);
      const only = usage?.from ?? usage?.to;
      return {
        phrase: phraseAt(kind, graph.from[link] === nodes[at] ? 'from' : 'to'),
        reference: items[nodes[at + 1]!]!.reference,
        suspect: graph.isSuspect(link),
        usage: only ? state.usages.say(only) : null,
      };
    }),
  };
}
