import type { listUses, listWholes, ReplyOf, Use } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { Composition, hasRole, isUseWithin, linkKindsOfRole } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { buildGround, type UseGround } from './use-ground.js';

/** Wholes that a list names. */
const MOST_WHOLES = 500;

/** The composition of systems as a tree of uses, looked at use by use: nothing is unfolded. */
@Injectable()
export class CompositionService {
  /** What was made of the newest change of a project. */
  private readonly kept = new WeakMap<ProjectState, { seq: number; ground: UseGround; composition: Composition }>();

  constructor(@Inject(ProjectStates) private readonly states: ProjectStates) {}

  async listWholes(projectId: string): Promise<ReplyOf<typeof listWholes>> {
    const state = await this.states.get(projectId);
    const { ground } = this.open(state);
    const wholes = state.items.flatMap((item, node) => {
      if (item.withdrawn || item.heading || !hasRole(state.scheme, item.kind, 'component') || ground.partsOf(node).length === 0) return [];
      return [{ ...this.describe(state, [item.id], node), used: ground.isUsed(node) }];
    });
    const size = ({ below }: Use) => below ?? Infinity;
    return {
      wholes: wholes.toSorted((a, b) => Number(a.used) - Number(b.used) || size(b) - size(a) || (a.item.title < b.item.title ? -1 : 1)).slice(0, MOST_WHOLES),
    };
  }

  /** Refuses a path that does not lead from part to part. */
  async listUses(projectId: string, path: readonly string[]): Promise<ReplyOf<typeof listUses>> {
    const state = await this.states.get(projectId);
    const { ground, composition } = this.open(state);
    const nodes = path.map((id) => {
      const node = state.nodeOf.get(id);
      if (node === undefined || !state.isPresent(node))
        throw new CoombError('not-found', 'Something on this path is not there any more. Begin at the system again.');
      return node;
    });
    const last = nodes.at(-1);
    if (last === undefined) throw new CoombError('input-invalid', 'Say the path of the use: ids of items from the system down to it.');
    nodes.forEach((node, at) => {
      const above = nodes[at - 1];
      if (above !== undefined && ground.typeOf(above) !== node && !ground.partsOf(above).includes(node))
        throw new CoombError('input-invalid', `${state.items[node]!.reference} is no part of ${state.items[above]!.reference}.`);
    });
    const above = new Set(nodes);
    const uses = composition.rowsOf(last).map((node) => {
      const type = ground.typeOf(node);
      const own = [...path, state.items[node]!.id, ...(type < 0 ? [] : [state.items[type]!.id])];
      return this.describe(state, own, node, composition.repeats(node, above));
    });
    // The last of a path may be what the use before it is a use of.
    const isType = nodes.length > 1 && ground.typeOf(nodes.at(-2)!) === last;
    return { at: this.describe(state, [...path], isType ? nodes.at(-2)! : last), uses };
  }

  private open(state: ProjectState): { ground: UseGround; composition: Composition } {
    const known = this.kept.get(state);
    if (known?.seq === state.seq) return known;
    const ground = buildGround(state);
    const made = { seq: state.seq, ground, composition: new Composition(ground) };
    this.kept.set(state, made);
    return made;
  }

  private describe(state: ProjectState, path: string[], node: number, repeats = false): Use {
    const { ground, composition } = this.open(state);
    const type = ground.typeOf(node);
    const below = composition.below(node);
    const rows = repeats ? 0 : composition.rowsOf(node).length;
    return {
      item: state.brief(node),
      type: type < 0 ? null : state.brief(type),
      path,
      rows,
      below: repeats ? 0 : Number.isFinite(below.rows) ? below.rows : null,
      repeats: repeats || below.repeats,
      ...countLinks(state, path, type < 0 ? [node] : [node, type]),
    };
  }
}

/** Links of a use: told apart by where they hold. */
function countLinks(state: ProjectState, path: readonly string[], nodes: readonly number[]): Pick<Use, 'here' | 'everywhere' | 'elsewhere'> {
  const structural = new Set((['types', 'composes'] as const).flatMap((role) => linkKindsOfRole(state.scheme, role).map(({ id }) => state.linkKindIndex(id))));
  const counts = { here: 0, everywhere: 0, elsewhere: 0 };
  for (const node of nodes) {
    // A part stands before what it is a use of.
    const own = path.slice(0, path.lastIndexOf(state.items[node]!.id) + 1);
    for (const end of ['from', 'to'] as const)
      for (const link of state.graph.findLinks(node, end === 'from' ? 'out' : 'in')) {
        if (structural.has(state.graph.kind[link]!)) continue;
        const usage = state.linkUsage(link)?.[end];
        if (!usage) counts.everywhere++;
        else if (isUseWithin(own, state.usages.pathOf(usage))) counts.here++;
        else counts.elsewhere++;
      }
  }
  return counts;
}
