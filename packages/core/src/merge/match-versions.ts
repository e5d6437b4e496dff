import { addToGroup, groupBy } from '../group-by.js';
import { finish, type Stepwise } from '../steps/stepwise.js';
import { buildTokens } from '../suggest/tokens.js';
import { findFarPairs, findSameTitles } from './match-far.js';
import { type MatchNode, shareOf } from './match-node.js';

export type VersionMatchReason = 'chosen' | 'key' | 'same text' | 'same title' | 'same items' | 'similar text';

export interface Match {
  mine: number;
  reason: VersionMatchReason;
  /** Share of words in common, 0 to 1. */
  likeness: number;
}

/** Below this share of common words two texts are not taken for versions of one another. */
const ALIKE = 0.5;
const MOST_COMPARED = 40;

/**
 * Which of `mine` each of `theirs` is a newer version of: by choice, else by key, else by the same text, else a section by the items in it,
 * else by similar text, below the same parent or far from it. A key decides alone: items with different keys are never matched by their text.
 * `chosen` maps indexes of theirs to indexes of mine, or to -1 for "this is new".
 */
export function matchVersions(
  mine: readonly MatchNode[],
  theirs: readonly MatchNode[],
  chosen: ReadonlyMap<number, number> = new Map(),
): (Match | undefined)[] {
  return finish(matchStepwise(mine, theirs, chosen));
}

/** As `matchVersions`, item by item. */
export function* matchStepwise(
  mine: readonly MatchNode[],
  theirs: readonly MatchNode[],
  chosen: ReadonlyMap<number, number> = new Map(),
): Stepwise<(Match | undefined)[]> {
  const matches: (Match | undefined)[] = new Array<Match | undefined>(theirs.length).fill(undefined);
  const taken = new Uint8Array(mine.length);
  const settled = new Uint8Array(theirs.length);
  const take = (their: number, own: number, reason: VersionMatchReason, likeness = 1) => {
    matches[their] = { mine: own, reason, likeness };
    taken[own] = settled[their] = 1;
  };
  for (const [their, own] of chosen) {
    if (own < 0) settled[their] = 1;
    else if (!taken[own]) take(their, own, 'chosen');
  }
  const byKey = new Map<string, number>();
  mine.forEach((node, index) => {
    if (node.key !== null && !taken[index]) byKey.set(node.key.toLowerCase(), index);
  });
  mine.forEach((node, index) => {
    const alias = node.alias?.toLowerCase();
    if (alias && !taken[index] && !byKey.has(alias)) byKey.set(alias, index);
  });
  theirs.forEach((node, index) => {
    if (settled[index] || node.key === null) return;
    const own = byKey.get(node.key.toLowerCase());
    if (own !== undefined && !taken[own]) take(index, own, 'key');
  });
  yield* matchText(mine, theirs, matches, taken, settled, take);
  return matches;
}

/**
 * Items without a key on at least one side. Texts, then titles, that stand once on both sides come first, so that no similar text takes what
 * has its twin further on; then parent by parent, each before its children; last the same text wherever it stands, and what is very like it.
 */
function* matchText(
  mine: readonly MatchNode[],
  theirs: readonly MatchNode[],
  matches: readonly (Match | undefined)[],
  taken: Uint8Array,
  settled: Uint8Array,
  take: (their: number, own: number, reason: VersionMatchReason, likeness?: number) => void,
): Stepwise<void> {
  const open = theirs.flatMap((_, index) => (settled[index] ? [] : [index]));
  if (open.length === 0) return;
  const ownByText = new Map<string, number[]>();
  const ownByPlace = new Map<string, number[]>();
  const ownBelow = new Map<number, number[]>();
  for (const [index, node] of mine.entries()) {
    if (taken[index]) continue;
    const text = textKey(node);
    addToGroup(ownByText, text, index);
    addToGroup(ownByPlace, `${node.parent} ${text}`, index);
    addToGroup(ownBelow, node.parent, index);
    yield;
  }
  const mayMatch = (their: number, own: number) =>
    !taken[own] && mine[own]!.heading === theirs[their]!.heading && (theirs[their]!.key === null || mine[own]!.key === null);

  // What is taken at the front is passed once, so that a text that stands a thousand times is not looked through a thousand times.
  const passed = new Map<readonly number[], number>();
  const findFree = (own: readonly number[] | undefined, their: number) => {
    if (!own) return undefined;
    let at = passed.get(own) ?? 0;
    while (at < own.length && taken[own[at]!]) at++;
    passed.set(own, at);
    while (at < own.length && !mayMatch(their, own[at]!)) at++;
    return own[at];
  };

  for (const [text, indexes] of groupBy(open, (index) => textKey(theirs[index]!))) {
    const own = ownByText.get(text);
    if (indexes.length === 1 && own?.length === 1 && mayMatch(indexes[0]!, own[0]!)) take(indexes[0]!, own[0]!, 'same text');
  }
  const free = () => mine.flatMap((_, index) => (taken[index] ? [] : [index]));
  const stillOpen = () => open.filter((index) => !settled[index]);
  for (const [their, own] of findSameTitles(mine, free(), theirs, stillOpen())) if (mayMatch(their, own)) take(their, own, 'same title');
  const below = groupBy(
    theirs.map((_, index) => index),
    (index) => theirs[index]!.parent,
  );
  const tokensOf = rememberTokens(mine);
  for (const [parent, all] of [...below].toSorted(([a], [b]) => a - b)) {
    const group = all.filter((index) => !settled[index]);
    if (group.length === 0) continue;
    const ownParent = parent < 0 ? -1 : matches[parent]?.mine;
    for (const index of group) {
      const same = findFree(ownByPlace.get(`${ownParent} ${textKey(theirs[index]!)}`), index);
      if (same !== undefined) take(index, same, 'same text');
    }
    for (const index of group) {
      if (settled[index] || !theirs[index]!.heading) continue;
      const section = findByItems(below.get(index) ?? [], matches, mine);
      if (section !== undefined && mayMatch(index, section)) take(index, section, 'same items');
    }
    const candidates = ownParent === undefined ? [] : (ownBelow.get(ownParent) ?? []).filter((own) => !taken[own]);
    if (candidates.length === 0) continue;
    const pairs: { index: number; own: number; likeness: number }[] = [];
    for (const { index, near } of placeAmong(all, matches, candidates)) {
      const words = new Set(buildTokens(theirs[index]!.words));
      for (const own of near) {
        const likeness = mayMatch(index, own) ? shareOf(words, tokensOf(own)) : 0;
        if (likeness > ALIKE) pairs.push({ index, own, likeness });
      }
      yield;
    }
    for (const { index, own, likeness } of pairs.toSorted((a, b) => b.likeness - a.likeness))
      if (!settled[index] && !taken[own]) take(index, own, 'similar text', likeness);
  }
  for (const index of open) {
    if (settled[index]) continue;
    const same = findFree(ownByText.get(textKey(theirs[index]!)), index);
    if (same !== undefined) take(index, same, 'same text');
  }
  for (const { their, own, likeness } of yield* findFarPairs(mine, free(), theirs, stillOpen()))
    if (!settled[their] && mayMatch(their, own)) take(their, own, 'similar text', likeness);
}

/** The section of mine that most of a section's items were found in: a section may be renamed and keep what stands in it. */
function findByItems(items: readonly number[], matches: readonly (Match | undefined)[], mine: readonly MatchNode[]): number | undefined {
  const count = new Map<number, number>();
  let found = 0;
  for (const item of items) {
    const match = matches[item];
    if (!match) continue;
    found++;
    const parent = mine[match.mine]!.parent;
    if (parent >= 0) count.set(parent, (count.get(parent) ?? 0) + 1);
  }
  const [best] = [...count].toSorted((a, b) => b[1] - a[1]);
  return best && best[1] * 2 > found ? best[0] : undefined;
}

/** The unmatched of a group of siblings, each with the candidates about its place: around the match of the one before it. */
function placeAmong(
  siblings: readonly number[],
  matches: readonly (Match | undefined)[],
  candidates: readonly number[],
): { index: number; near: readonly number[] }[] {
  let at = 0;
  return siblings.flatMap((index) => {
    const match = matches[index];
    if (!match) {
      const first = Math.max(0, at - MOST_COMPARED / 2);
      return [{ index, near: candidates.slice(first, first + MOST_COMPARED) }];
    }
    let high = candidates.length;
    for (at = 0; at < high; ) {
      const middle = (at + high) >> 1;
      if (candidates[middle]! <= match.mine) at = middle + 1;
      else high = middle;
    }
    return [];
  });
}

function rememberTokens(nodes: readonly MatchNode[]): (index: number) => ReadonlySet<string> {
  const tokens = new Map<number, ReadonlySet<string>>();
  return (index) => {
    let found = tokens.get(index);
    if (!found) tokens.set(index, (found = new Set(buildTokens(nodes[index]!.words))));
    return found;
  };
}

function textKey(node: MatchNode): string {
  return `${node.heading ? 1 : 0} ${node.words.trim().toLowerCase().replace(/\s+/g, ' ')}`;
}
