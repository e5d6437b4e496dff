import type { BodyOf, growTrace, ReplyOf, TracePlaceReply } from '@coomb/contract';
import { buildTraceTree, deriveSteps, findKind, phraseAt, type TracePlace, type TraceStep } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';

/** Places of one side that are shown at most. */
const MOST_PLACES = 1500;

@Injectable()
export class TraceTreeService {
  constructor(@Inject(ProjectStates) private readonly states: ProjectStates) {}

  async grow(projectId: string, wish: NonNullable<BodyOf<typeof growTrace>>): Promise<ReplyOf<typeof growTrace>> {
    const state = await this.states.get(projectId);
    const root = getNode(state, wish.item);
    const kinds = wish.kinds && new Set(wish.kinds);
    // What things are made of is what derived steps go through, not where they lead.
    const tracing = new Set(
      state.scheme.linkKinds.filter(({ id, role }) => role !== 'types' && role !== 'composes' && (!kinds || kinds.has(id))).map(({ id }) => id),
    );
    const side = (towards: 'up' | 'down') => {
      const mark = towards === 'up' ? 'u' : 'd';
      const own = (keys: readonly string[]) => new Set(keys.flatMap((key) => (key.startsWith(mark) ? [key.slice(1)] : [])));
      const { places, isCut } = buildTraceTree({
        root,
        stepsOf: (node) => {
          const given = findSteps(state, node, towards, kinds);
          return wish.derived ? [...given, ...deriveSteps(given, findInside(state, node), (inner) => findSteps(state, inner, towards, tracing))] : given;
        },
        levels: towards === 'up' ? (wish.up ?? 2) : (wish.down ?? 2),
        opened: own(wish.opened ?? []),
        closed: own(wish.closed ?? []),
        most: MOST_PLACES,
      });
      return { isCut, places: places.map((place) => describe(state, place, mark)) };
    };
    const [up, down] = [side('up'), side('down')];
    return { upstream: up.places, downstream: down.places, isCut: up.isCut || down.isCut };
  }
}

/** Links that lead from an item towards one side, kind by kind in the order of the scheme. */
function findSteps(state: ProjectState, node: number, towards: 'up' | 'down', kinds: ReadonlySet<string> | undefined): TraceStep[] {
  const { graph, scheme } = state;
  const steps: TraceStep[] = [];
  scheme.linkKinds.forEach((kind, index) => {
    if (kinds && !kinds.has(kind.id)) return;
    const isOut = (kind.upstream === 'to') === (towards === 'up');
    for (const link of graph.findLinks(node, isOut ? 'out' : 'in', index)) {
      const other = isOut ? graph.to[link]! : graph.from[link]!;
      if (state.isPresent(other)) steps.push({ link, node: other, kind: index, reversed: !isOut });
    }
  });
  return steps;
}

/** Everything that stands below an item in its outline: its parts, values, steps. Sections and what only orders others are made of nothing. */
function findInside(state: ProjectState, node: number): number[] {
  const item = state.items[node]!;
  if (item.heading || findKind(state.scheme, item.kind)?.informative) return [];
  const { nodes, rowOf } = state.outline();
  const ids = new Set([item.id]);
  const inside: number[] = [];
  // What stands below a row follows it.
  for (let row = rowOf[node]! + 1; row < nodes.length; row++) {
    const { id, parentId } = state.items[nodes[row]!]!;
    if (parentId === null || !ids.has(parentId)) break;
    ids.add(id);
    inside.push(nodes[row]!);
  }
  return inside;
}

function describe(state: ProjectState, { key, node, parent, step, again, hidden }: TracePlace, mark: string): TracePlaceReply {
  const usage = step && state.linkUsage(step.link);
  const own = usage && (usage.from ?? usage.to);
  return {
    key: mark + key,
    item: state.brief(node),
    parent,
    phrase: step ? phraseAt(state.scheme.linkKinds[step.kind]!, step.reversed ? 'to' : 'from') : '',
    link: step ? state.linkIds.at(step.link) : null,
    through: step?.through?.map((inner) => state.items[inner]!.title) ?? null,
    suspect: step ? state.graph.isSuspect(step.link) : false,
    usage: own ? state.usages.say(own) : null,
    again,
    hidden,
  };
}
