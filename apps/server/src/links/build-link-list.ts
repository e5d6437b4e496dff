import type { LinkFilter, linkGroups, linkSorts, queryLinks, ReplyOf } from '@coomb/contract';
import { compareReferences, type FieldValue } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';
import type { LinkFacts } from '../link-rows/link-facts.js';

export interface LinkListWish extends LinkFilter {
  sort: (typeof linkSorts)[number];
  descending: 'yes' | 'no';
  group: (typeof linkGroups)[number];
  offset: number;
  limit: number;
}
type Wish = Omit<LinkListWish, 'offset' | 'limit'>;
type Part = Exclude<LinkListWish['group'], 'none'>;

/** What is told of links, and how somebody is called now. */
interface Told {
  facts: LinkFacts;
  nameOf: (person: string) => string;
  /** What items say in their fields, by node; read only where a field is asked for. */
  /** 1 for each node that is seen through the lens that was asked for. */
  seen?: Uint8Array;
  fields?: readonly Record<string, FieldValue>[];
}

export interface Listed extends Pick<ReplyOf<typeof queryLinks>, 'all' | 'total' | 'groups' | 'counts'> {
  order: Uint32Array;
}

/** A property of links as a number each, and what a number stands for: numbers are counted and compared, texts are not made 200,000 times. */
interface Code {
  of: (link: number) => number;
  label: (code: number) => string;
}
type Test = (link: number) => boolean;

/** Links that the filter leaves, in order. What each part of the filter could be is counted with the other parts as they are. */
export function buildLinkList(state: ProjectState, told: Told, wish: Wish): Listed {
  const { graph } = state;
  const codes = buildCodes(state, told);
  const tests = Object.entries(buildTests(state, told, codes, wish)).filter((entry): entry is [string, Test] => entry[1] !== undefined);
  const counts = { kind: new Map<number, number>(), origin: new Map<number, number>(), person: new Map<number, number>(), layers: new Map<number, number>() };
  const parts = Object.keys(counts) as (keyof typeof counts)[];
  const [states, uses, values] = [new Map<string, number>(), new Map<string, number>(), new Map<string, number>()];
  const valuesOf = buildValues(state, told, wish.field);
  const found = new Uint32Array(graph.links);
  let total = 0;
  let all = 0;
  for (let link = 0; link < graph.links; link++) {
    if (!graph.isAlive(link)) continue;
    all++;
    let failed: string | undefined;
    let failures = 0;
    for (const [name, test] of tests) {
      if (test(link)) continue;
      failed = name;
      if (++failures > 1) break;
    }
    if (failures > 1) continue;
    for (const part of parts) if (failures === 0 || failed === part) increase(counts[part], codes[part].of(link));
    if (failures === 0 || failed === 'state') for (const one of statesOf(state, link)) increase(states, one);
    if (failures === 0 || failed === 'use') for (const one of usesOf(state, link)) increase(uses, one);
    if (valuesOf && (failures === 0 || failed === 'value')) for (const one of valuesOf(link)) increase(values, one);
    if (failures === 0) found[total++] = link;
  }
  const links = found.subarray(0, total);
  const { groups, rank } = wish.group === 'none' ? { groups: [], rank: undefined } : rankGroups(links, codes[wish.group]);
  const listed = (part: keyof typeof counts) => sortCounts([...counts[part]].map(([code, count]) => ({ id: codes[part].label(code), count })));
  return {
    ...{ order: sortLinks(state, told, codes, links, wish, rank), all, total, groups },
    counts: {
      ...{ kind: listed('kind'), origin: listed('origin'), person: listed('person'), layers: listed('layers') },
      ...{ state: countsOf(states), use: countsOf(uses).slice(0, MOST_COUNTED), value: countsOf(values).slice(0, MOST_COUNTED) },
    },
  };
}

/** Uses and values that are offered to narrow the list by; there may be thousands. */
const MOST_COUNTED = 200;

const countsOf = (counts: ReadonlyMap<string, number>) => sortCounts([...counts].map(([id, count]) => ({ id, count })));
const increase = <K>(counts: Map<K, number>, key: K) => void counts.set(key, (counts.get(key) ?? 0) + 1);
const sortCounts = (counts: { id: string; count: number }[]) => counts.sort((a, b) => b.count - a.count || compareReferences(a.id, b.id));

/** Groups with how many links each has, the largest first, and the place of each link's group among them. */
function rankGroups(links: Uint32Array, { of, label }: Code): { groups: Listed['groups']; rank: Uint32Array } {
  const counts = new Map<number, number>();
  for (const link of links) increase(counts, of(link));
  const groups = [...counts].map(([code, count]) => ({ code, id: label(code), count })).sort((a, b) => b.count - a.count || compareReferences(a.id, b.id));
  const places = new Map(groups.map(({ code }, place) => [code, place]));
  return { groups: groups.map(({ id, count }) => ({ id, count })), rank: Uint32Array.from(links, (link) => places.get(of(link))!) };
}

function sortLinks(
  state: ProjectState,
  { facts }: Told,
  codes: Record<Part, Code>,
  links: Uint32Array,
  wish: Wish,
  rank: Uint32Array | undefined,
): Uint32Array {
  const { graph } = state;
  const { rowOf } = state.outline();
  const name = new Map<number, number>();
  if (wish.sort === 'person') {
    const all = [...new Set(Array.from(links, codes.person.of))].sort((a, b) => compareReferences(codes.person.label(a), codes.person.label(b)));
    all.forEach((code, place) => name.set(code, place));
  }
  const ends = (near: 'from' | 'to', far: 'from' | 'to') => (link: number) => rowOf[graph[near][link]!]! * 1e8 + rowOf[graph[far][link]!]!;
  const sorts: Record<Wish['sort'], (link: number) => number> = {
    from: ends('from', 'to'),
    to: ends('to', 'from'),
    kind: codes.kind.of,
    person: (link) => name.get(codes.person.of(link))!,
    at: (link) => facts.at[link] ?? 0,
  };
  const keys = Float64Array.from(links, sorts[wish.sort]);
  const turn = wish.descending === 'yes' ? -1 : 1;
  const order = Uint32Array.from(links.keys());
  if (rank) order.sort((a, b) => rank[a]! - rank[b]! || turn * (keys[a]! - keys[b]!) || a - b);
  else order.sort((a, b) => turn * (keys[a]! - keys[b]!) || a - b);
  return order.map((at) => links[at]!);
}

function buildCodes({ graph, scheme, items, contents: { collections } }: ProjectState, { facts, nameOf }: Told): Record<Part, Code> {
  const layerIds = scheme.layers.map(({ id }) => id);
  const layerOf = new Map(scheme.kinds.map(({ id, layer }) => [id, layerIds.indexOf(layer)]));
  const placeOf = new Map(collections.map(({ id }, place) => [id, place]));
  const layerAt = Uint16Array.from(items, ({ kind }) => (layerOf.get(kind) ?? -1) + 1);
  const collectionAt = Uint16Array.from(items, ({ collectionId }) => placeOf.get(collectionId) ?? 0);
  // Several persons that were recorded may be one by name.
  const persons = [...new Set(facts.persons.map(nameOf))];
  const personAt = facts.persons.map((person) => persons.indexOf(nameOf(person)));
  const pair = (at: Uint16Array, count: number) => (link: number) => at[graph.from[link]!]! * count + at[graph.to[link]!]!;
  const sayPair = (count: number, join: string, say: (one: number) => string) => (code: number) =>
    `${say(Math.floor(code / count))}${join}${say(code % count)}`;
  const layers = layerIds.length + 1;
  return {
    kind: { of: (link) => graph.kind[link]!, label: (code) => scheme.linkKinds[code]!.id },
    origin: { of: (link) => facts.origin[link] ?? 0, label: (code) => facts.origins[code] ?? '' },
    person: { of: (link) => personAt[facts.person[link] ?? 0] ?? 0, label: (code) => persons[code] ?? '' },
    layers: { of: pair(layerAt, layers), label: sayPair(layers, '>', (layer) => layerIds[layer - 1] ?? '') },
    collections: { of: pair(collectionAt, collections.length), label: sayPair(collections.length, ' → ', (place) => collections[place]?.name ?? '') },
  };
}

/** One test for each part of the filter that narrows; nothing for those that do not. */
function buildTests(state: ProjectState, told: Told, codes: Record<Part, Code>, wish: Wish): Record<string, Test | undefined> {
  const { facts } = told;
  const { graph, items } = state;
  const valuesOf = wish.value ? buildValues(state, told, wish.field) : undefined;
  /** Whether the label of a link's code is one of some; looked up once for each code. */
  const among = (values: readonly string[], { of, label }: Code): Test | undefined => {
    if (values.length === 0) return undefined;
    const known = new Map<number, boolean>();
    return (link) => {
      const code = of(link);
      let is = known.get(code);
      if (is === undefined) known.set(code, (is = values.includes(label(code))));
      return is;
    };
  };
  const [left, right] = [new Set(wish.left), new Set(wish.right)];
  const isIn = (side: ReadonlySet<string>) => Uint8Array.from(items, ({ collectionId }) => Number(side.size === 0 || side.has(collectionId)));
  const sides = (): Test => {
    const [isLeft, isRight] = [isIn(left), isIn(right)];
    return (link) => {
      const [from, to] = [graph.from[link]!, graph.to[link]!];
      return Boolean((isLeft[from]! & isRight[to]!) | (isLeft[to]! & isRight[from]!));
    };
  };
  const after = wish.after ? Date.parse(wish.after) : Number.NEGATIVE_INFINITY;
  const before = wish.before ? Date.parse(wish.before) : Number.POSITIVE_INFINITY;
  return {
    kind: among(wish.kind, codes.kind),
    origin: among(wish.origin, codes.origin),
    person: among(wish.person ? [wish.person] : [], codes.person),
    layers: among(wish.layers ? [wish.layers] : [], codes.layers),
    state: wish.state === 'all' ? undefined : (link) => statesOf(state, link).includes(wish.state),
    sides: left.size + right.size === 0 ? undefined : sides(),
    words: buildWordTest(state, wish.words),
    lens: told.seen && ((link) => Boolean(told.seen![graph.from[link]!]! | told.seen![graph.to[link]!]!)),
    use: wish.use ? (link) => usesOf(state, link).includes(wish.use) : undefined,
    value: valuesOf && ((link) => valuesOf(link).has(wish.value)),
    days: wish.after || wish.before ? (link) => facts.at[link]! >= after && facts.at[link]! < before : undefined,
  };
}

/** Every word must stand at one of the ends, or in how the link reads. Each item is looked at once. */
function buildWordTest({ graph, items, scheme }: ProjectState, text: string): Test | undefined {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return undefined;
  const texts = items.map(({ reference, title }) => `${reference} ${title}`.toLowerCase());
  const tests = words.map((word) => ({
    items: Uint8Array.from(texts, (one) => Number(one.includes(word))),
    kinds: Uint8Array.from(scheme.linkKinds, ({ phrase }) => Number(phrase.toLowerCase().includes(word))),
  }));
  return (link) => tests.every((test) => test.items[graph.from[link]!] || test.items[graph.to[link]!] || test.kinds[graph.kind[link]!]);
}

function statesOf(state: ProjectState, link: number): string[] {
  const { graph } = state;
  const states = [graph.isSuspect(link) ? 'suspect' : 'sound'];
  if (!state.isPresent(graph.from[link]!) || !state.isPresent(graph.to[link]!)) states.push('withdrawn');
  if (state.linkUsage(link)) states.push('inUse');
  return states;
}

/** The uses that a link holds in only, as they are said. */
function usesOf(state: ProjectState, link: number): string[] {
  const usage = state.linkUsage(link);
  return usage ? [usage.from, usage.to].flatMap((use) => (use ? [state.usages.say(use)] : [])) : [];
}

/** What either end of a link says in a field, each value once. */
function buildValues({ graph }: ProjectState, { fields }: Told, field: string): ((link: number) => ReadonlySet<string>) | undefined {
  if (!fields || !field) return undefined;
  const said = fields.map((own) => sayValues(own?.[field]));
  return (link) => new Set([...(said[graph.from[link]!] ?? []), ...(said[graph.to[link]!] ?? [])]);
}

function sayValues(value: FieldValue | undefined): string[] {
  if (Array.isArray(value)) return value.map(String);
  if (typeof value === 'boolean') return [value ? 'yes' : 'no'];
  return value === null || value === undefined || value === '' ? [] : [String(value)];
}
