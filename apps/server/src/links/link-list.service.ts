import type { LinkFilter, ListedLink, linkGroups, linkSorts, queryLinks, ReplyOf } from '@coomb/contract';
import { compareReferences } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { PersonsService } from '../persons/persons.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { type LinkFacts, LinkFactsKeeper } from './link-facts.js';

/** Rows that are read at once for a file. */
const BLOCK = 500;

export interface LinkListWish extends LinkFilter {
  sort: (typeof linkSorts)[number];
  descending: 'yes' | 'no';
  group: (typeof linkGroups)[number];
  offset: number;
  limit: number;
}
type Reply = ReplyOf<typeof queryLinks>;

/** Every link of a project as a list: filtered, grouped and sorted here, shown in windows. */
@Injectable()
export class LinkListService {
  /** The order that was made last of each project: windows of one list are asked for one after the other. */
  private readonly last = new WeakMap<ProjectState, { of: string; list: Listed }>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LinkFactsKeeper) private readonly facts: LinkFactsKeeper,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  async query(projectId: string, wish: LinkListWish): Promise<Reply> {
    const state = await this.states.get(projectId);
    const facts = await this.facts.find(state);
    const list = this.list(state, facts, wish);
    const shown = [...list.order.subarray(wish.offset, wish.offset + wish.limit)];
    const rows = await this.rows.findRows(
      projectId,
      'link',
      shown.map((link) => state.linkIds.at(link)),
    );
    const { all, total, groups, counts } = list;
    const say = (usage: string | null | undefined) => (usage ? state.usages.say(usage) : null);
    return {
      ...{ seq: state.seq, all, total, groups, counts, offset: wish.offset },
      rows: shown.flatMap((link): ListedLink[] => {
        const row = rows.get(state.linkIds.at(link));
        if (!row) return [];
        const { id, revision, kind, origin, confirmedBy, confirmedAt, fromUsage, toUsage, fields } = row;
        return [
          {
            ...{ id, revision, kind, origin, fields, suspect: state.graph.isSuspect(link), person: confirmedBy, at: new Date(confirmedAt).toISOString() },
            ...{ from: state.brief(state.graph.from[link]!), to: state.brief(state.graph.to[link]!), fromUse: say(fromUsage), toUse: say(toUsage) },
          },
        ];
      }),
    };
  }

  async findIds(projectId: string, filter: LinkFilter): Promise<string[]> {
    const state = await this.states.get(projectId);
    const facts = await this.facts.find(state);
    const { order } = this.list(state, facts, { ...filter, sort: 'from', descending: 'no', group: 'none', offset: 0, limit: 0 });
    return Array.from(order, (link) => state.linkIds.at(link));
  }

  /** Head and rows of a file, read block by block. */
  async *rowsOf(projectId: string, wish: Omit<LinkListWish, 'offset' | 'limit'>): AsyncGenerator<string[]> {
    const { scheme } = await this.states.get(projectId);
    yield ['From', 'Title', 'Kind', 'reads', 'To', 'Title', 'Kind', 'From in use', 'To in use', 'Suspect', 'Origin', 'Confirmed by', 'On', 'Fields', 'Link'];
    const labelOf = new Map(scheme.kinds.map(({ id, label }) => [id, label]));
    const kindOf = new Map(scheme.linkKinds.map((kind) => [kind.id, kind]));
    for (let offset = 0; ; offset += BLOCK) {
      const { rows, total } = await this.query(projectId, { ...wish, offset, limit: BLOCK });
      for (const { id, from, to, kind, fromUse, toUse, suspect, origin, person, at, fields } of rows) {
        const own = kindOf.get(kind);
        const said = Object.entries(fields).map(([field, value]) => `${own?.fields?.find((one) => one.id === field)?.label ?? field}: ${String(value)}`);
        const ends = [
          from.reference,
          from.title,
          labelOf.get(from.kind) ?? from.kind,
          own?.phrase ?? kind,
          to.reference,
          to.title,
          labelOf.get(to.kind) ?? to.kind,
        ];
        yield [...ends, fromUse ?? '', toUse ?? '', suspect ? 'yes' : 'no', origin, this.persons.nameOf(person), at.slice(0, 10), said.join('; '), id];
      }
      if (offset + BLOCK >= total) return;
    }
  }

  private list(state: ProjectState, facts: LinkFacts, { offset: _offset, limit: _limit, ...wish }: LinkListWish): Listed {
    const nameOf = (person: string) => this.persons.nameOf(person);
    const of = JSON.stringify([state.seq, state.day, wish, facts.persons.map(nameOf)]);
    const known = this.last.get(state);
    if (known?.of === of) return known.list;
    const list = buildList(state, { facts, nameOf }, wish);
    this.last.set(state, { of, list });
    return list;
  }
}

/** What is told of links, and how somebody is called now. */
interface Told {
  facts: LinkFacts;
  nameOf: (person: string) => string;
}

interface Listed extends Pick<Reply, 'all' | 'total' | 'groups' | 'counts'> {
  order: Uint32Array;
}

/** Links that the filter leaves, in order. What each part of the filter could be is counted with the other parts as they are. */
function buildList(state: ProjectState, told: Told, wish: Omit<LinkListWish, 'offset' | 'limit'>): Listed {
  const { graph } = state;
  const { facts } = told;
  const tests = buildTests(state, told, wish);
  const names = Object.keys(tests) as (keyof typeof tests)[];
  const counted = { kind: new Map<string, number>(), origin: new Map<string, number>(), person: new Map<string, number>() };
  const layers = new Map<string, number>();
  const states = new Map<string, number>();
  const keyOf = buildKeys(state, told);
  const found: number[] = [];
  let all = 0;
  for (let link = 0; link < graph.links; link++) {
    if (!graph.isAlive(link)) continue;
    all++;
    const failed = names.filter((name) => tests[name] !== undefined && !tests[name](link));
    if (failed.length > 1) continue;
    const only = failed[0];
    const count = (of: Map<string, number>, part: string, key: string) => {
      if (only === undefined || only === part) of.set(key, (of.get(key) ?? 0) + 1);
    };
    count(counted.kind, 'kind', keyOf.kind(link));
    count(counted.origin, 'origin', keyOf.origin(link));
    count(counted.person, 'person', keyOf.person(link));
    count(layers, 'layers', keyOf.layers(link));
    for (const one of statesOf(state, link)) count(states, 'state', one);
    if (only === undefined) found.push(link);
  }
  const { rowOf } = state.outline();
  const sorts: Record<LinkListWish['sort'], (link: number) => number | string> = {
    from: (link) => rowOf[graph.from[link]!]! * 1e8 + rowOf[graph.to[link]!]!,
    to: (link) => rowOf[graph.to[link]!]! * 1e8 + rowOf[graph.from[link]!]!,
    kind: (link) => graph.kind[link]!,
    person: keyOf.person,
    at: (link) => facts.at[link] ?? 0,
  };
  const keys = found.map(sorts[wish.sort]);
  const turn = wish.descending === 'yes' ? -1 : 1;
  const groupOf = wish.group === 'none' ? undefined : found.map(keyOf[wish.group]);
  const order = Uint32Array.from({ length: found.length }, (_, at) => at);
  const compare = (a: number | string, b: number | string) => (a === b ? 0 : a < b ? -1 : 1);
  const groups = new Map<string, number>();
  for (const group of groupOf ?? []) groups.set(group, (groups.get(group) ?? 0) + 1);
  const rank = new Map([...groups].sort(([a, many], [b, more]) => more - many || compareReferences(a, b)).map(([group], at) => [group, at]));
  order.sort((a, b) => (groupOf ? rank.get(groupOf[a]!)! - rank.get(groupOf[b]!)! : 0) || turn * compare(keys[a]!, keys[b]!) || a - b);
  const listed = (of: ReadonlyMap<string, number>) =>
    [...of].map(([id, count]) => ({ id, count })).sort((a, b) => b.count - a.count || compareReferences(a.id, b.id));
  return {
    order: order.map((at) => found[at]!),
    all,
    total: found.length,
    groups: [...rank.keys()].map((id) => ({ id, count: groups.get(id)! })),
    counts: { kind: listed(counted.kind), origin: listed(counted.origin), person: listed(counted.person), layers: listed(layers), state: listed(states) },
  };
}

type Test = (link: number) => boolean;

/** One test for each part of the filter that narrows; nothing for those that do not. */
function buildTests(state: ProjectState, told: Told, wish: Omit<LinkListWish, 'offset' | 'limit'>): Record<string, Test | undefined> {
  const { graph, items, scheme } = state;
  const { facts } = told;
  const keyOf = buildKeys(state, told);
  const among = (values: readonly string[], of: Test | ((link: number) => string)) => {
    if (values.length === 0) return undefined;
    const wanted = new Set(values);
    return (link: number) => wanted.has(of(link) as string);
  };
  const [left, right] = [new Set(wish.left), new Set(wish.right)];
  const collectionAt = (end: 'from' | 'to', link: number) => items[graph[end][link]!]!.collectionId;
  const isIn = (side: ReadonlySet<string>, collection: string) => side.size === 0 || side.has(collection);
  const words = wish.words.toLowerCase().split(/\s+/).filter(Boolean);
  const textOf = new Map<number, string>();
  const text = (node: number) => {
    let known = textOf.get(node);
    if (known === undefined) textOf.set(node, (known = `${items[node]!.reference} ${items[node]!.title}`.toLowerCase()));
    return known;
  };
  const after = wish.after ? Date.parse(wish.after) : undefined;
  const before = wish.before ? Date.parse(wish.before) : undefined;
  return {
    kind: among(wish.kind, keyOf.kind),
    origin: among(wish.origin, keyOf.origin),
    person: wish.person ? (link) => keyOf.person(link) === wish.person : undefined,
    layers: wish.layers ? (link) => keyOf.layers(link) === wish.layers : undefined,
    state: wish.state === 'all' ? undefined : (link) => statesOf(state, link).includes(wish.state),
    sides:
      left.size + right.size === 0
        ? undefined
        : (link) => {
            const [from, to] = [collectionAt('from', link), collectionAt('to', link)];
            return (isIn(left, from) && isIn(right, to)) || (isIn(left, to) && isIn(right, from));
          },
    words:
      words.length === 0
        ? undefined
        : (link) => {
            const phrase = scheme.linkKinds[graph.kind[link]!]!.phrase;
            const said = `${text(graph.from[link]!)} ${phrase} ${text(graph.to[link]!)}`;
            return words.every((word) => said.includes(word));
          },
    days:
      after === undefined && before === undefined
        ? undefined
        : (link) => (after === undefined || facts.at[link]! >= after) && (before === undefined || facts.at[link]! < before),
  };
}

function buildKeys(
  { graph, scheme, items, collections }: ProjectState,
  { facts, nameOf: nameOfPerson }: Told,
): Record<Exclude<LinkListWish['group'], 'none'>, (link: number) => string> {
  const layerOf = new Map(scheme.kinds.map(({ id, layer }) => [id, layer]));
  const layerAt = (node: number) => layerOf.get(items[node]!.kind) ?? '';
  const nameOf = new Map(collections.map(({ id, name }) => [id, name]));
  const collectionAt = (node: number) => nameOf.get(items[node]!.collectionId) ?? '';
  const persons = facts.persons.map(nameOfPerson);
  return {
    kind: (link) => scheme.linkKinds[graph.kind[link]!]!.id,
    origin: (link) => facts.origins[facts.origin[link]!] ?? '',
    person: (link) => persons[facts.person[link]!] ?? '',
    layers: (link) => `${layerAt(graph.from[link]!)}>${layerAt(graph.to[link]!)}`,
    collections: (link) => `${collectionAt(graph.from[link]!)} → ${collectionAt(graph.to[link]!)}`,
  };
}

function statesOf(state: ProjectState, link: number): string[] {
  const { graph } = state;
  const states = [graph.isSuspect(link) ? 'suspect' : 'sound'];
  if (!state.isPresent(graph.from[link]!) || !state.isPresent(graph.to[link]!)) states.push('withdrawn');
  if (state.linkUsage(link)) states.push('inUse');
  return states;
}
