import type { addMember, BodyOf, getBoundary, makeContext, ReplyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { findKindOfRole, hasRole, isAllowed, linkKindsOfRole, type LinkKind } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { buildGround } from '../composition/use-ground.js';
import { buildLink } from '../link-rows/build-link.js';
import type { LinkEnd } from '../link-rows/link-ends.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { ItemsRepo } from '../items/items.repo.js';
import { ItemsService } from '../items/items.service.js';
import type { Change } from '../ledger/change.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';

type Reply = ReplyOf<typeof getBoundary>;
type Allocation = Reply['members'][number]['functions'][number];

/** The boundary of a system: a context made of it and what is outside, what each is there for, and who performs which function. */
@Injectable()
export class BoundaryService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(ItemsService) private readonly items: ItemsService,
    @Inject(ItemsRepo) private readonly repo: ItemsRepo,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Of the context that is asked for, else of the first that there is. */
  async get(projectId: string, about: string | undefined): Promise<Reply> {
    const state = await this.states.get(projectId);
    const ground = buildGround(state);
    const { nodes } = state.outline();
    const wholes = Array.from(nodes).filter(
      (node) =>
        !state.items[node]!.heading && hasRole(state.scheme, state.items[node]!.kind, 'component') && ground.partsOf(node).some((part) => isPart(state, part)),
    );
    const asked = about === undefined ? undefined : state.nodeOf.get(about);
    // What is used in nothing is likelier a context than a system is.
    const node = asked !== undefined && wholes.includes(asked) ? asked : (wholes.find((one) => !ground.isUsed(one)) ?? wholes[0]);
    const contexts = wholes.toSorted((a, b) => Number(ground.isUsed(a)) - Number(ground.isUsed(b))).map((one) => state.brief(one));
    if (node === undefined) return { contexts, context: null, members: [], functions: [], missing: { functions: 0, performers: 0 } };
    const allocated = await this.readAllocations(state);
    const members = ground
      .partsOf(node)
      .filter((part) => isPart(state, part))
      .map((part) => {
        const type = ground.typeOf(part);
        const system = type < 0 ? part : type;
        return { part: state.brief(part), system: state.brief(system), functions: [...new Set([part, system])].flatMap((one) => allocated.to.get(one) ?? []) };
      });
    const functions = Array.from(nodes)
      .filter((one) => !state.items[one]!.heading && hasRole(state.scheme, state.items[one]!.kind, 'function'))
      .filter((one) => state.items[one]!.collectionId === state.items[node]!.collectionId || allocated.from.has(one))
      .map((one) => ({ item: state.brief(one), depth: depthAmong(state, one), performers: allocated.from.get(one) ?? [] }));
    return {
      contexts,
      context: state.brief(node),
      members,
      functions,
      missing: {
        functions: members.filter((member) => member.functions.length === 0).length,
        performers: functions.filter(({ performers }) => performers.length === 0).length,
      },
    };
  }

  async makeContext(projectId: string, person: string, { title, systems }: BodyOf<typeof makeContext>): Promise<ReplyOf<typeof makeContext>> {
    let context = '';
    const { seq } = await this.ledger.change(projectId, async (state) => {
      const kind = this.kindOf(state, 'component');
      const nodes = systems.map((system) => getNode(state, system));
      const home = nodes.length > 0 ? state.items[nodes[0]!]!.collectionId : undefined;
      const { row, moved } = await this.items.planCreate(state, person, { title, kind, ...(home && { collection: home }) });
      context = row.id;
      const changes: Change[] = [{ entity: 'item', before: null, after: row }, ...moved];
      for (const [at, node] of nodes.entries()) changes.push(...(await this.planMember(state, person, row, state.items[node]!, at)));
      return { person, action: `Make the context ${row.reference}`, changes: numberOn(state, changes) };
    });
    return { seq, context };
  }

  async addMember(projectId: string, person: string, contextId: string, wanted: BodyOf<typeof addMember>): Promise<ReplyOf<typeof addMember>> {
    let part = '';
    const { seq } = await this.ledger.change(projectId, async (state) => {
      const context = state.items[getNode(state, contextId)]!;
      const changes: Change[] = [];
      let system: LinkEnd;
      if ('system' in wanted) system = state.items[getNode(state, wanted.system)]!;
      else {
        const { row, moved } = await this.items.planCreate(state, person, {
          title: wanted.title,
          kind: this.kindOf(state, 'component'),
          collection: context.collectionId,
        });
        changes.push({ entity: 'item', before: null, after: row }, ...moved);
        system = row;
      }
      const siblings = state.items.filter(({ parentId, withdrawn }) => parentId === context.id && !withdrawn).length;
      const made = await this.planMember(state, person, context, system, siblings);
      part = made[0]!.after.id;
      return { person, action: `Add ${system.reference} to the context ${context.reference}`, changes: numberOn(state, [...changes, ...made]) };
    });
    return { seq, part };
  }

  /** A part of the context, and that it is a use of the system. */
  private async planMember(state: ProjectState, person: string, context: LinkEnd, system: LinkEnd, at: number): Promise<Change[]> {
    const kind = this.kindOf(state, 'part');
    const typed = linkKindsOfRole(state.scheme, 'types').find((one) => isAllowed(one, kind, system.kind));
    if (!typed) throw new CoombError('link-not-allowed', `The scheme lets no part be a use of ${system.reference}.`);
    const known = state.nodeOf.has(context.id);
    const { row } = await this.items.planCreate(state, person, {
      ...{ title: system.title, kind, collection: context.collectionId },
      ...(known && { parent: context.id }),
    });
    // A context that is made in the same change is not in the project yet.
    const part = known ? row : { ...row, parentId: context.id, rank: (at + 1) * 1024 };
    const own = { state, person, now: this.clock.now().toISOString(), newId: this.clock.newId };
    return [
      { entity: 'item', before: null, after: part },
      { entity: 'link', before: null, after: { ...buildLink(own, typed.id, part, system), origin: 'made' } },
    ];
  }

  private kindOf(state: ProjectState, role: 'component' | 'part'): string {
    const kind = findKindOfRole(state.scheme, role);
    if (!kind) throw new CoombError('input-invalid', `The scheme has no kind that plays the part of a ${role}. Give one that part first.`);
    return kind.id;
  }

  /** Allocations by what is done and by who does it, with what their own fields say. */
  private async readAllocations(state: ProjectState): Promise<{ from: Map<number, Allocation[]>; to: Map<number, Allocation[]> }> {
    const kinds = new Set(linkKindsOfRole(state.scheme, 'allocates').map((kind: LinkKind) => state.scheme.linkKinds.indexOf(kind)));
    const { graph } = state;
    const links: number[] = [];
    for (let link = 0; link < graph.links; link++)
      if (graph.isAlive(link) && kinds.has(graph.kind[link]!) && state.isPresent(graph.from[link]!) && state.isPresent(graph.to[link]!)) links.push(link);
    const rows = await this.repo.findLinks(
      state.id,
      links.map((link) => state.linkIds.at(link)),
    );
    const found = { from: new Map<number, Allocation[]>(), to: new Map<number, Allocation[]>() };
    for (const link of links) {
      const id = state.linkIds.at(link);
      const row = rows.get(id);
      const [from, to] = [graph.from[link]!, graph.to[link]!];
      const common = { link: id, revision: row?.revision ?? 1, fields: row?.fields ?? {} };
      found.from.set(from, [...(found.from.get(from) ?? []), { ...common, other: state.brief(to) }]);
      found.to.set(to, [...(found.to.get(to) ?? []), { ...common, other: state.brief(from) }]);
    }
    return found;
  }
}

/** New items of one change are planned one by one, each with the next free reference: from the second on they take the ones that follow. */
function numberOn(state: ProjectState, changes: readonly Change[]): Change[] {
  const taken = new Set<string>();
  return changes.map((change) => {
    if (change.entity !== 'item' || change.before !== null) return change;
    let { reference } = change.after;
    while (taken.has(reference) || (reference !== change.after.reference && state.byReference.has(reference.toLowerCase())))
      reference = reference.replace(/\d+$/, (digits) => String(Number(digits) + 1).padStart(digits.length, '0'));
    taken.add(reference);
    return { ...change, after: { ...change.after, reference } };
  });
}

const isPart = (state: ProjectState, node: number) =>
  hasRole(state.scheme, state.items[node]!.kind, 'part') || hasRole(state.scheme, state.items[node]!.kind, 'component');

/** How many functions stand above a function. */
function depthAmong(state: ProjectState, node: number): number {
  let depth = 0;
  for (let { parentId } = state.items[node]!; parentId !== null; ) {
    const item = state.items[state.nodeOf.get(parentId) ?? -1];
    if (!item) break;
    if (!item.heading && hasRole(state.scheme, item.kind, 'function')) depth++;
    ({ parentId } = item);
  }
  return depth;
}
