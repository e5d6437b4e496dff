import type { findSuspectsAt, listSuspects, ReplyOf, SuspectGroup } from '@coomb/contract';
import { addToGroup, phraseAt } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { describeErrand } from '../project-state/describe-errand.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { LensesService } from '../lenses/lenses.service.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';

/** One suspect link, seen from the end that changed last. */
interface Seen {
  link: number;
  at: 'from' | 'to';
  now: number;
  then: number;
  both: boolean;
}

/** Suspect links, by the change that made them so. */
@Injectable()
export class SuspectsService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LedgerReader) private readonly reader: LedgerReader,
    @Inject(LensesService) private readonly lenses: LensesService,
  ) {}

  async list(projectId: string, limit: number, lens?: string): Promise<ReplyOf<typeof listSuspects>> {
    const state = await this.states.get(projectId);
    const groups = new Map<string, Seen[]>();
    const shownBy = lens === undefined ? undefined : await this.lenses.seen(state, lens);
    const { from, to } = state.graph;
    let links = 0;
    for (const seen of findSuspects(state)) {
      if (shownBy && !shownBy[from[seen.link]!] && !shownBy[to[seen.link]!]) continue;
      links++;
      const node = state.graph[seen.at][seen.link]!;
      addToGroup(groups, `${node} ${seen.now}`, seen);
    }
    const newest = [...groups.values()].sort(([a], [b]) => b!.now - a!.now);
    const shown = newest.slice(0, limit);
    const batches = await this.rows.findBatches(projectId, [...new Set(shown.map(([first]) => first!.now))]);
    const errands = new Map(
      (await this.reader.findAll(projectId, 'errand')).flatMap((one) => (one.linkId === null || one.done ? [] : [[one.linkId, describeErrand(one)] as const])),
    );
    const describe = (group: Seen[]): SuspectGroup => {
      const { link, at, now } = group[0]!;
      const batch = batches.get(now);
      return {
        item: state.brief(state.graph[at][link]!),
        seq: now,
        at: new Date(batch?.at ?? state.createdAt).toISOString(),
        person: batch?.person ?? '',
        action: batch?.action ?? '',
        links: group.map((one) => {
          const id = state.linkIds.at(one.link);
          const usage = state.linkUsage(one.link);
          const only = usage?.from ?? usage?.to;
          return {
            id,
            phrase: phraseAt(state.scheme.linkKinds[state.graph.kind[one.link]!]!, one.at),
            other: state.brief(state.graph[one.at === 'from' ? 'to' : 'from'][one.link]!),
            since: one.then,
            both: one.both,
            usage: only ? state.usages.say(only) : null,
            errand: errands.get(id) ?? null,
          };
        }),
      };
    };
    return { seq: state.seq, links, total: newest.length, groups: shown.map(describe) };
  }

  /** Those at some items, each once. */
  async findAt(projectId: string, items: readonly string[]): Promise<ReplyOf<typeof findSuspectsAt>> {
    const state = await this.states.get(projectId);
    const { graph, scheme } = state;
    const links = new Set<number>();
    for (const item of items) {
      const node = getNode(state, item);
      for (const direction of ['out', 'in'] as const) for (const link of graph.findLinks(node, direction)) links.add(link);
    }
    return {
      seq: state.seq,
      links: findSuspects(state, links).map(({ link, at }) => ({
        id: state.linkIds.at(link),
        item: state.brief(graph[at][link]!),
        phrase: phraseAt(scheme.linkKinds[graph.kind[link]!]!, at),
        other: state.brief(graph[at === 'from' ? 'to' : 'from'][link]!),
      })),
    };
  }
}

function findSuspects(state: ProjectState, links: Iterable<number> = Array(state.graph.links).keys()): Seen[] {
  const { graph } = state;
  const found: Seen[] = [];
  for (const link of links) {
    if (!graph.isAlive(link) || !graph.isSuspect(link) || !state.isPresent(graph.from[link]!) || !state.isPresent(graph.to[link]!)) continue;
    const { from, to } = state.outdatedEnds(link);
    const at = (to?.now ?? -1) > (from?.now ?? -1) ? 'to' : 'from';
    const end = at === 'to' ? to : from;
    if (end) found.push({ link, at, ...end, both: from !== undefined && to !== undefined });
  }
  return found;
}
