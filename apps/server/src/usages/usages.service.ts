import type { BodyOf, listUsages, listUsed, ReplyOf, setInUsage } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { getKind, isNoValue, isUseWithin, type Scheme } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { checkFields, cleanFields } from '../items/check-fields.js';
import { fieldsChangeMeaning } from '../items/items.service.js';
import type { Change, UsageValue } from '../ledger/change.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import type { KnownUse } from '../project-state/project-usages.js';
import { ProjectStates } from '../project-state/project-states.js';
import { UsageFinder } from '../link-rows/usage-finder.js';

/** Usages that one list tells. */
const MOST = 200;

/** Where items are used, and what is said of them in one use only. */
@Injectable()
export class UsagesService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async list(projectId: string, idOrReference: string): Promise<ReplyOf<typeof listUsages>> {
    const state = await this.states.get(projectId);
    const node = getNode(state, idOrReference);
    const uses = state.usages.of(state.items[node]!.id);
    return { usages: uses.slice(0, MOST).map((use) => describe(state, node, use)), cut: uses.length > MOST };
  }

  /** Items of which something holds in one usage only. */
  async listUsed(projectId: string): Promise<ReplyOf<typeof listUsed>> {
    const state = await this.states.get(projectId);
    const told = new Set([...state.usages.values()].flatMap(({ itemId, withdrawn }) => (withdrawn ? [] : [itemId])));
    const items = [...told].flatMap((id) => {
      const node = state.nodeOf.get(id);
      if (node === undefined || !state.isPresent(node)) return [];
      const usages = state.usages.of(id).slice(0, MOST);
      return [{ node, usages: usages.map(({ path }) => ({ path: [...path], says: state.usages.sayPath(path) })) }];
    });
    return { items };
  }

  /** Refuses fields that the item has not and values that they do not take, and what somebody else changed meanwhile. */
  async set(projectId: string, person: string, { path, fields, revision }: BodyOf<typeof setInUsage>): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const item = state.items[getNode(state, path.at(-1)!)]!;
      const finder = new UsageFinder(state, this.clock.newId);
      const id = finder.find(item, path)!;
      const made = finder.made[0]?.after as UsageValue | undefined;
      const before = made ?? state.usages.get(id)!;
      if (!made && before.revision !== revision)
        throw new CoombError('changed-meanwhile', `What holds in this use of ${item.reference} was changed by somebody else meanwhile. Look at it again.`, {
          revision: before.revision,
        });
      const unknown = Object.keys(fields).find((field) => !getKind(state.scheme, item.kind).fields.some((one) => one.id === field));
      if (unknown !== undefined) throw new CoombError('input-invalid', `fields.${unknown}: ${item.reference} has no such field.`);
      checkFields(state.scheme, item.kind, fields);
      const kept = Object.fromEntries(Object.entries({ ...before.fields, ...fields }).filter(([, value]) => !isNoValue(value)));
      const own = cleanFields(state.scheme, item.kind, kept);
      const action = `Say what ${namesOf(state.scheme, item.kind, Object.keys(fields))} of ${item.reference} ${Object.keys(fields).length === 1 ? 'is' : 'are'} as ${state.usages.sayPath(path)}`;
      const meaningSeq = fieldsChangeMeaning(state.scheme, item.kind, before.fields, own) ? state.seq + 1 : before.meaningSeq;
      const change: Change = made
        ? { entity: 'usage', before: null, after: { ...made, fields: own, meaningSeq } }
        : { entity: 'usage', before, after: { ...before, fields: own, meaningSeq, revision: before.revision + 1 } };
      return { person, action: action.slice(0, 300), changes: [change] };
    });
  }
}

const namesOf = (scheme: Scheme, kind: string, fields: readonly string[]) =>
  fields.map((id) => getKind(scheme, kind).fields.find((field) => field.id === id)?.label ?? id).join(', ');

function describe(state: ProjectState, node: number, { id, path, gone }: KnownUse): ReplyOf<typeof listUsages>['usages'][number] {
  const { graph } = state;
  const count = (end: 'from' | 'to') =>
    graph.findLinks(node, end === 'from' ? 'out' : 'in').filter((link) => {
      const usage = state.linkUsage(link)?.[end];
      return usage !== undefined && usage !== null && isUseWithin(path, state.usages.pathOf(usage));
    }).length;
  return {
    id,
    path: path.flatMap((one) => {
      const at = state.nodeOf.get(one);
      return at === undefined ? [] : [state.brief(at)];
    }),
    says: state.usages.sayPath(path),
    links: count('from') + count('to'),
    fields: state.usages.fieldsIn(path),
    gone,
    revision: id === null ? 0 : (state.usages.get(id)?.revision ?? 0),
  };
}
