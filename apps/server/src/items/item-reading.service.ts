import type { Item, ReplyOf, TrailLink, getHistory, getItem, getTrace } from '@coomb/contract';
import { buildReach, buildWordDiff, type Direction, findKind, phraseAt, type Step, fieldTypeOf } from '@coomb/core';
import { plainText } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import type { ItemValue, UsageValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { asIso } from '../changes/ledger.service.js';
import { describeWaiver } from '../project-state/describe-waiver.js';
import type { ProjectState } from '../project-state/project-state.js';
import { getNode } from '../project-state/get-node.js';
import { ProjectStates } from '../project-state/project-states.js';
import { DrawingsRepo } from '../drawing-rows/drawings.repo.js';
import { WaitingEndsService } from '../waiting-ends/waiting-ends.service.js';
import { ItemsRepo } from './items.repo.js';
import { joinedInto, readLineage } from './lineage.js';

type HistoryEntry = { of: string; seq: number } & Awaited<ReturnType<LedgerRepo['findHistory']>>[number];

/** Everything that is read of items; ItemsService changes them. */
@Injectable()
export class ItemReadingService {
  constructor(
    @Inject(ItemsRepo) private readonly repo: ItemsRepo,
    @Inject(LedgerRepo) private readonly ledger: LedgerRepo,
    @Inject(DrawingsRepo) private readonly drawings: DrawingsRepo,
    @Inject(WaitingEndsService) private readonly waiting: WaitingEndsService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

  async readCollection(projectId: string, collection: string, offset: number, limit: number): Promise<{ total: number; items: Item[] }> {
    const state = await this.states.get(projectId);
    const nodes = Array.from(state.outline().nodes).filter((node) => state.items[node]!.collectionId === collection);
    const page = nodes.slice(offset, offset + limit);
    const rows = await this.repo.findMany(
      projectId,
      page.map((node) => state.items[node]!.id),
    );
    return { total: nodes.length, items: page.map((node) => asItem(state, node, rows.get(state.items[node]!.id)!)) };
  }

  async getSheet(projectId: string, idOrReference: string, use?: readonly string[]): Promise<ReplyOf<typeof getItem>> {
    const state = await this.states.get(projectId);
    const node = getNode(state, idOrReference);
    const row = (await this.repo.findMany(projectId, [state.items[node]!.id])).get(state.items[node]!.id)!;
    const [home] = row.bindings;
    const source = home && (await this.repo.findSource(projectId, home.partner, row.id));
    const { upstream, downstream } = await this.readTrail(state, node);
    return {
      ...asItem(state, node, row),
      uses: state.usages.of(row.id).length,
      createdAt: asIso(row.createdAt),
      changedAt: asIso(row.changedAt),
      changedBy: row.changedBy,
      origin: sayOrigin(state, row.origin),
      place: source?.place ?? (home && row.exchanged[home.partner]?.place) ?? null,
      source: source ? { id: source.id, name: source.name } : null,
      path: readPath(state, node),
      upstream,
      downstream,
      waiting: await this.waiting.findOf(state, row.id),
      coverage: state.scheme.rules
        .filter((rule) => state.question(rule).subject[node])
        .map((rule) => ({ rule: rule.id, label: rule.label, state: state.coverageIn(rule, node, use) })),
      evidence: await this.readEvidence(state, node),
      results: (await this.repo.findResults(projectId, [row.id])).map(({ outcome, at, run, message, duration }) => ({
        outcome,
        at: asIso(at),
        run,
        message,
        duration,
      })),
      waivers: [...state.waivers.values()].filter((waiver) => waiver.itemId === row.id && !waiver.withdrawn).map((waiver) => describeWaiver(state, waiver)),
      details: row.details,
      drawnIn: (await this.drawings.findShowing(projectId, row.id)).map(({ id, itemId, name, sort, shapes, shapeIds }) => ({
        ...{ drawing: id, item: itemId, name, sort, shapes, shapeIds },
      })),
    };
  }

  /** Every change of an item, each compared with what stood before it. */
  async getHistory(projectId: string, idOrReference: string): Promise<ReplyOf<typeof getHistory>> {
    const state = await this.states.get(projectId);
    const { id } = state.items[getNode(state, idOrReference)]!;
    const history = await this.collectHistory(state, id, state.seq, new Set());
    return history
      .sort((a, b) => b.seq - a.seq)
      .map(({ of, seq, batch, change }) => ({
        seq,
        at: asIso(batch.at),
        person: batch.person,
        action: batch.action,
        of: of === id ? null : state.items[state.nodeOf.get(of)!]!.reference,
        revision: change.after.revision,
        changes:
          change.entity === 'item'
            ? compareItems(state, change.before, change.after)
            : change.entity === 'usage'
              ? compareUsages(state, of, change.before, change.after)
              : [],
      }));
  }

  /** Changes of an item up to a number, with those of the item that it was split from, up to there, and of those that were joined into it. */
  private async collectHistory(state: ProjectState, id: string, upTo: number, known: Set<string>): Promise<HistoryEntry[]> {
    if (known.has(id)) return [];
    known.add(id);
    const own = (await this.ledger.findHistory(state.id, 'item', id, upTo)).map(({ batch, change }) => ({ of: id, seq: batch.seq, batch, change }));
    const first = own.at(-1);
    const made = first && readLineage((first.change.after as ItemValue).origin);
    const earlier = made?.as === 'split' ? await this.collectHistory(state, made.item, first!.seq - 1, known) : [];
    const joined: HistoryEntry[] = [];
    for (const other of await this.repo.findWithOrigin(state.id, joinedInto(id)))
      if (state.items[state.nodeOf.get(other.id) ?? -1]?.withdrawn) joined.push(...(await this.collectHistory(state, other.id, upTo, known)));
    const inUses: HistoryEntry[] = [];
    for (const usage of state.usages.values())
      if (usage.itemId === id)
        for (const { batch, change } of await this.ledger.findHistory(state.id, 'usage', usage.id, upTo))
          inUses.push({ of: id, seq: batch.seq, batch, change });
    return [...own, ...earlier, ...joined, ...inUses];
  }

  async getTrace(projectId: string, idOrReference: string): Promise<ReplyOf<typeof getTrace>> {
    const state = await this.states.get(projectId);
    const node = getNode(state, idOrReference);
    const reach = (towards: 'up' | 'down') =>
      buildReach(state.graph, node, { steps: buildTowards(state, towards), mayEnter: (other) => state.isPresent(other), ...usageOptions(state) })
        .slice(1)
        .filter(({ node: other }, index, all) => all.findIndex((one) => one.node === other) === index)
        .map((entry): [number, number] => [entry.node, entry.distance]);
    return { life: state.life, up: reach('up'), down: reach('down') };
  }

  /** Titles and words of texts, node by node. */
  async readTexts(state: ProjectState, nodes: readonly number[]): Promise<{ title: string; text: string }[]> {
    const rows = await this.repo.findMany(
      state.id,
      nodes.map((node) => state.items[node]!.id),
    );
    return nodes.map((node) => {
      const row = rows.get(state.items[node]!.id)!;
      return { title: row.title, text: plainText(row.html) };
    });
  }

  async readText(state: ProjectState, node: number): Promise<string> {
    const { id } = state.items[node]!;
    return textOf((await this.repo.findMany(state.id, [id])).get(id)!);
  }

  private async readTrail(state: ProjectState, node: number): Promise<{ upstream: TrailLink[]; downstream: TrailLink[] }> {
    const trail = { upstream: [] as TrailLink[], downstream: [] as TrailLink[] };
    const links: number[] = [...state.graph.findLinks(node, 'out'), ...state.graph.findLinks(node, 'in')];
    const rows = await this.repo.findLinks(
      state.id,
      links.map((link) => state.linkIds.at(link)),
    );
    for (const link of links) {
      const end: 'from' | 'to' = state.graph.from[link] === node ? 'from' : 'to';
      const other = end === 'from' ? state.graph.to[link]! : state.graph.from[link]!;
      const linkKind = state.scheme.linkKinds[state.graph.kind[link]!];
      if (!linkKind || !state.isPresent(other)) continue;
      const id = state.linkIds.at(link);
      const isUp = linkKind.upstream !== end;
      trail[isUp ? 'upstream' : 'downstream'].push({
        id,
        linkKind: linkKind.id,
        phrase: phraseAt(linkKind, end),
        end,
        suspect: state.graph.isSuspect(link),
        origin: rows.get(id)?.origin ?? 'made',
        usage: sayUsage(state, state.linkUsage(link)?.[end]),
        otherUsage: sayUsage(state, state.linkUsage(link)?.[end === 'from' ? 'to' : 'from']),
        usagePath: pathOfUsage(state, state.linkUsage(link)?.[end]),
        revision: rows.get(id)?.revision ?? 1,
        fields: rows.get(id)?.fields ?? {},
        other: state.brief(other),
      });
    }
    return trail;
  }

  private async readEvidence(state: ProjectState, node: number): Promise<ReplyOf<typeof getItem>['evidence']> {
    const { tests } = state.verifying.read(node);
    const results = await this.repo.findResults(
      state.id,
      tests.map((test) => state.items[test]!.id),
    );
    return tests.map((test) => {
      const { id } = state.items[test]!;
      const latest = results.find((result) => result.test === id);
      const known = state.latest.get(id);
      const stale = known !== undefined && Math.max(state.items[node]!.meaningSeq, state.items[test]!.meaningSeq) > known.seq;
      return {
        test: state.brief(test),
        outcome: latest?.outcome ?? null,
        at: latest ? asIso(latest.at) : null,
        run: latest?.run ?? null,
        message: latest?.message ?? '',
        stale,
      };
    });
  }
}

export function asItem(state: ProjectState, node: number, row: ItemValue): Item {
  return {
    id: row.id,
    node,
    collection: row.collectionId,
    kind: row.kind,
    reference: row.reference,
    title: row.title,
    html: row.html,
    fields: row.fields,
    heading: row.heading,
    parent: row.parentId,
    revision: row.revision,
    withdrawn: row.withdrawn,
    state: state.stateOf(node),
  };
}

/** Steps of all link kinds towards the upstream or downstream end. */
export function buildTowards(state: ProjectState, towards: 'up' | 'down'): Step[] {
  return state.scheme.linkKinds.map((kind, index) => {
    const toIsAhead = (kind.upstream === 'to') === (towards === 'up');
    const direction: Direction = toIsAhead ? 'out' : 'in';
    return { kind: index, direction };
  });
}

function readPath(state: ProjectState, node: number): ReplyOf<typeof getItem>['path'] {
  const path = [];
  const seen = new Set<string>();
  for (let id = state.items[node]!.parentId; id !== null && !seen.has(id); id = state.items[state.nodeOf.get(id)!]!.parentId) {
    seen.add(id);
    path.push(state.brief(state.nodeOf.get(id)!));
  }
  return path.reverse();
}

function textOf(row: ItemValue): string {
  return `${row.title} ${plainText(row.html)}`;
}

function compareItems(state: ProjectState, before: ItemValue | null, after: ItemValue): { field: string; words: ReturnType<typeof buildWordDiff> }[] {
  const texts = (row: ItemValue | null): Map<string, string> => {
    const found = new Map<string, string>([
      ['Title', row?.title ?? ''],
      ['Text', row ? plainText(row.html) : ''],
      ['Kind', row ? (findKind(state.scheme, row.kind)?.label ?? row.kind) : ''],
      ['Withdrawn', row?.withdrawn ? 'yes' : ''],
      ['Place', row ? describePlace(state, row) : ''],
      ['Details', row ? row.details.map(({ sort, text }) => `${sort}: ${text}`).join('\n') : ''],
    ]);
    const fields = findKind(state.scheme, after.kind)?.fields ?? [];
    for (const field of fields) {
      const value = row?.fields[field.id];
      found.set(
        field.label,
        value === undefined || value === null
          ? ''
          : Array.isArray(value)
            ? value.join(', ')
            : fieldTypeOf(field.type).rich
              ? plainText(String(value))
              : String(value),
      );
    }
    return found;
  };
  const old = texts(before);
  return [...texts(after)]
    .filter(([field, text]) => text !== old.get(field))
    .map(([field, text]) => ({ field, words: buildWordDiff(old.get(field) ?? '', text) }));
}

/** Own values of a use, each with where it holds. */
function compareUsages(state: ProjectState, item: string, before: UsageValue | null, after: UsageValue): ReturnType<typeof compareItems> {
  const { kind } = state.items[state.nodeOf.get(item)!]!;
  const place = state.usages.sayPath(after.path);
  const say = (value: unknown) => (value === undefined || value === null ? '' : Array.isArray(value) ? value.join(', ') : plainText(String(value)));
  return (findKind(state.scheme, kind)?.fields ?? []).flatMap(({ id, label }) => {
    const [old, now] = [say(before?.withdrawn ? undefined : before?.fields[id]), say(after.withdrawn ? undefined : after.fields[id])];
    return old === now ? [] : [{ field: `${label}, as ${place}`, words: buildWordDiff(old, now) }];
  });
}

function describePlace(state: ProjectState, row: ItemValue): string {
  const node = row.parentId === null ? undefined : state.nodeOf.get(row.parentId);
  return `below ${node === undefined ? 'the top' : state.items[node]!.reference}, position ${row.rank}`;
}

function sayUsage(state: ProjectState, usage: string | null | undefined): string | null {
  return usage ? state.usages.say(usage) : null;
}

function pathOfUsage(state: ProjectState, usage: string | null | undefined): string[] | null {
  return usage ? [...state.usages.pathOf(usage)] : null;
}

function usageOptions(state: ProjectState) {
  const usages = state.usages.ends();
  return usages ? { usages } : {};
}

/** Where an item came from, in words where it was made of another. */
function sayOrigin(state: ProjectState, origin: string): string {
  const made = readLineage(origin);
  if (!made) return origin;
  const other = state.items[state.nodeOf.get(made.item) ?? -1]?.reference ?? 'an item that is not there';
  return made.as === 'split' ? `Split from ${other}` : `Joined into ${other}`;
}
