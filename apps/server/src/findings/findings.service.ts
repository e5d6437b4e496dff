import {
  type BodyOf,
  CoombError,
  type Finding,
  type FindingState,
  type listFindings,
  type mendFindings,
  type ReplyOf,
  type waiveFindings,
} from '@coomb/contract';
import { counted, groupBy, mendings as mendingWords } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { describeErrand } from '../project-state/describe-errand.js';
import { presentPerson } from '../http/caller.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { LensesService } from '../lenses/lenses.service.js';
import type { Change, ErrandValue, WaiverValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { PersonsService } from '../persons/persons.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { FindingGrounds } from './finding-ground.js';
import type { Found, FoundByRule } from './finding-source.js';
import { findingSources } from './finding-sources.js';
import { DoubtsService } from './doubts.service.js';
import { TwinsService } from './twins.service.js';
import { MendingService } from './mending.service.js';

interface Said {
  waiver: WaiverValue | undefined;
  errand: ErrandValue | undefined;
}

interface Wish {
  rule?: string | undefined;
  state: FindingState;
  collection?: string | undefined;
  lens?: string | undefined;
  words: string;
  offset: number;
  limit: number;
}

/** What rules find in a project, with what people said of it. Nothing of a finding itself is stored. */
@Injectable()
export class FindingsService {
  private readonly kept = new WeakMap<ProjectState, { of: string; rules: Promise<FoundByRule[]> }>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(FindingGrounds) private readonly grounds: FindingGrounds,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(TwinsService) private readonly twins: TwinsService,
    @Inject(DoubtsService) private readonly doubts: DoubtsService,
    @Inject(MendingService) private readonly mending: MendingService,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(LensesService) private readonly lenses: LensesService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Every finding by rule, found once for each state of the project. */
  find(state: ProjectState): Promise<FoundByRule[]> {
    const of = `${state.seq} ${state.day} ${this.twins.stamp(state)} ${this.doubts.stamp(state)}`;
    const known = this.kept.get(state);
    if (known?.of === of) return known.rules;
    const rules = this.grounds.build(state).then((ground) => findingSources.flatMap((source) => source.find(state, ground)));
    this.kept.set(state, { of, rules });
    rules.catch(() => this.kept.delete(state));
    return rules;
  }

  async list(projectId: string, wish: Wish): Promise<ReplyOf<typeof listFindings>> {
    const state = await this.states.get(projectId);
    const rules = await this.find(state);
    const said = await this.findSaid(state);
    const { rowOf } = state.outline();
    const me = presentPerson();
    const seen = wish.lens === undefined ? undefined : await this.lenses.seen(state, wish.lens);
    const words = wish.words.toLowerCase().split(/\s+/).filter(Boolean);
    const isWanted = (found: Found, of: Said) => {
      const item = state.items[found.node]!;
      if (wish.state === 'open' && of.waiver) return false;
      if (wish.state === 'waived' && !of.waiver) return false;
      if (wish.state === 'taken' && (!of.errand || of.waiver)) return false;
      if (wish.state === 'mine' && of.errand?.owner !== me) return false;
      if (wish.collection !== undefined && item.collectionId !== wish.collection) return false;
      const text = words.length > 0 ? `${item.reference} ${item.title} ${found.says}`.toLowerCase() : '';
      return words.every((word) => text.includes(word));
    };
    const reply: ReplyOf<typeof listFindings> = { seq: state.seq, rules: [], total: 0, findings: [] };
    for (const { found, ...rule } of rules) {
      const of = (seen ? found.filter((one) => isSeenThrough(seen, one)) : found).map((one): [Found, Said] => [one, said(one)]);
      const count = (isCounted: (of: Said) => unknown) => of.filter(([, one]) => isCounted(one)).length;
      const open = count(({ waiver }) => !waiver);
      reply.rules.push({ ...rule, open, waived: of.length - open, taken: count(({ waiver, errand }) => errand && !waiver) });
      if (wish.rule !== undefined && wish.rule !== rule.id) continue;
      const wanted = of.filter(([one, ofOne]) => isWanted(one, ofOne)).sort(([a], [b]) => rowOf[a.node]! - rowOf[b.node]!);
      const at = Math.max(0, wish.offset - reply.total);
      const shown = wanted.slice(at, at + wish.limit - reply.findings.length);
      reply.total += wanted.length;
      for (const [one, ofOne] of shown) reply.findings.push(describe(state, rule.id, one, ofOne));
    }
    return reply;
  }

  async waive(projectId: string, person: string, wish: NonNullable<BodyOf<typeof waiveFindings>>): Promise<{ seq: number; ids: string[] }> {
    const approver = wish.approver ? await this.persons.getByName(wish.approver) : null;
    return this.ledger.change(projectId, async (state) => {
      const chosen = await this.choose(state, wish.findings);
      const said = await this.findSaid(state);
      const changes = chosen.flatMap(({ rule, found }): Change[] => {
        if (said(found).waiver) return [];
        const gap = rule.startsWith('gap:');
        const after: WaiverValue = {
          ...{ id: this.clock.newId(), projectId, revision: 1, withdrawn: false, person },
          ...{ itemId: state.items[found.node]!.id, rule: gap ? rule.slice(4) : rule, finding: gap ? null : found.key },
          ...{ reason: wish.reason, approver, until: wish.until ?? null },
        };
        return [{ entity: 'waiver', before: null, after }];
      });
      const one = chosen.length === 1 ? chosen[0]! : undefined;
      const action = one ? `Waive what was found at ${state.items[one.found.node]!.reference}` : `Waive ${counted(changes.length, 'finding')}`;
      return { person, action, changes };
    });
  }

  mend(projectId: string, person: string, wish: NonNullable<BodyOf<typeof mendFindings>>['findings']): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const chosen = await this.choose(
        state,
        wish.map(({ key }) => key),
      );
      const steps = wish.map(({ sort, at }, index) => {
        const found = chosen[index]!.found;
        const step = found.mendings.filter((one) => one.sort === sort)[at ?? 0];
        if (!step)
          throw new CoombError('input-invalid', `${state.items[found.node]!.reference} cannot be mended so: ${mendingWords[sort].label.toLowerCase()}.`);
        return step;
      });
      const changes = await this.mending.plan(state, person, steps);
      const [first] = steps;
      const action =
        steps.length === 1
          ? `${mendingWords[first!.sort].label}: ${state.items[chosen[0]!.found.node]!.reference}`
          : `Mend ${counted(steps.length, 'finding')}`;
      return { person, action, changes };
    });
  }

  /** Findings by their keys, in the order asked for. Refuses where one is there no more. */
  private async choose(state: ProjectState, keys: readonly string[]): Promise<{ rule: string; found: Found }[]> {
    const byKey = new Map((await this.find(state)).flatMap(({ id, found }) => found.map((one) => [one.key, { rule: id, found: one }] as const)));
    const gone = keys.filter((key) => !byKey.has(key));
    if (gone.length > 0)
      throw new CoombError(
        'changed-meanwhile',
        `${gone.length} of ${counted(keys.length, 'finding')} ${gone.length === 1 ? 'is' : 'are'} there no more. Look again.`,
        { gone },
      );
    return keys.map((key) => byKey.get(key)!);
  }

  /** What people said of findings: waivers that hold, and errands that are not done. */
  private async findSaid(state: ProjectState): Promise<(found: Found) => Said> {
    const active = [...state.waivers.values()].filter((waiver) => state.waivers.isActive(waiver));
    const byFinding = new Map(active.flatMap((waiver) => (waiver.finding === null ? [] : [[waiver.finding, waiver] as const])));
    const byRule = groupBy(
      active.filter(({ finding }) => finding === null),
      ({ rule, itemId }) => `${rule} ${itemId}`,
    );
    const errands = new Map(
      (await this.rows.findAll(state.id, 'errand')).flatMap((errand) => (errand.finding === null || errand.done ? [] : [[errand.finding, errand] as const])),
    );
    return ({ key, node, waivedUnder }) => ({
      waiver: byFinding.get(key) ?? (waivedUnder === undefined ? undefined : byRule.get(`${waivedUnder} ${state.items[node]!.id}`)?.[0]),
      errand: errands.get(key),
    });
  }
}

/** What is found between two items is found at both. */
export const isSeenThrough = (seen: Uint8Array, { node, other }: Found): boolean => seen[node] === 1 || (other >= 0 && seen[other] === 1);

function describe(state: ProjectState, rule: string, { key, node, other, links, says, mendings }: Found, { waiver, errand }: Said): Finding {
  const seen = new Map<string, number>();
  return {
    key,
    rule,
    item: state.brief(node),
    other: other < 0 ? null : state.brief(other),
    links: links.map((link) => state.linkIds.at(link)),
    says,
    waiver: waiver ? { id: waiver.id, person: waiver.person, reason: waiver.reason, approver: waiver.approver, until: waiver.until } : null,
    errand: errand ? describeErrand(errand) : null,
    mendings: mendings.map(({ sort, ...what }) => {
      const at = seen.get(sort) ?? 0;
      seen.set(sort, at + 1);
      const { label } = mendingWords[sort];
      const of = 'link' in what && mendings.length > 1 && at > 0 ? state.items[state.graph.from[what.link]!]!.reference : undefined;
      return { sort, at, label: of ? `${label} from ${of}` : 'node' in what ? `Restore ${state.items[what.node]!.reference}` : label };
    }),
  };
}
