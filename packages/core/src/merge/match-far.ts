import { addToGroup, groupBy } from '../group-by.js';
import type { Stepwise } from '../steps/stepwise.js';
import { buildTokens } from '../suggest/tokens.js';
import { type MatchNode, shareOf } from './match-node.js';

/** Shorter titles, such as "General", say too little. */
const SHORTEST_TITLE = 3;
/** What moved and changed as well must be more alike than what stayed. */
const VERY_ALIKE = 0.75;
/** Words that stand in more items than this tell none from the others. */
const MOST_HOLDERS = 60;
const MOST_COMPARED = 12;

/** Items, not sections, whose title stands once on both sides, though other parts of them changed: pairs of theirs and mine. */
export function findSameTitles(mine: readonly MatchNode[], free: readonly number[], theirs: readonly MatchNode[], open: readonly number[]): [number, number][] {
  const titleOf = (node: MatchNode) => node.title.trim().toLowerCase().replace(/\s+/g, ' ');
  const tells = (node: MatchNode) => !node.heading && node.title.trim().split(/\s+/).length >= SHORTEST_TITLE;
  const own = groupBy(
    free.filter((index) => tells(mine[index]!)),
    (index) => titleOf(mine[index]!),
  );
  const other = groupBy(
    open.filter((index) => tells(theirs[index]!)),
    (index) => titleOf(theirs[index]!),
  );
  return [...other].flatMap(([title, indexes]): [number, number][] => {
    const twins = own.get(title);
    return indexes.length === 1 && twins?.length === 1 ? [[indexes[0]!, twins[0]!]] : [];
  });
}

/** Items that are very alike wherever they stand, the most alike first: found by the rare words that they share. */
export function* findFarPairs(
  mine: readonly MatchNode[],
  free: readonly number[],
  theirs: readonly MatchNode[],
  open: readonly number[],
): Stepwise<{ their: number; own: number; likeness: number }[]> {
  if (free.length === 0 || open.length === 0) return [];
  const tokens = new Map<number, Set<string>>();
  const holders = new Map<string, number[]>();
  for (const index of free) {
    if (mine[index]!.heading) continue;
    const words = new Set(buildTokens(mine[index]!.words));
    tokens.set(index, words);
    for (const word of words) addToGroup(holders, word, index);
    yield;
  }
  const pairs: { their: number; own: number; likeness: number }[] = [];
  for (const their of open) {
    if (theirs[their]!.heading) continue;
    const words = new Set(buildTokens(theirs[their]!.words));
    for (const own of findSharers(words, holders)) {
      const likeness = shareOf(words, tokens.get(own)!);
      if (likeness > VERY_ALIKE) pairs.push({ their, own, likeness });
    }
    yield;
  }
  return pairs.sort((a, b) => b.likeness - a.likeness);
}

/** The items that share most rare words. */
function findSharers(words: ReadonlySet<string>, holders: ReadonlyMap<string, readonly number[]>): number[] {
  const shared = new Map<number, number>();
  for (const word of words) {
    const own = holders.get(word);
    if (own && own.length <= MOST_HOLDERS) for (const index of own) shared.set(index, (shared.get(index) ?? 0) + 1);
  }
  return [...shared]
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_COMPARED)
    .map(([index]) => index);
}
