import { addToGroup } from '../group-by.js';
import { buildTokens } from '../suggest/tokens.js';

/** What tells one version of an item from another. */
export interface MatchNode {
  /** Identity in the source: external id or the recipe's key. Null when it has none. */
  key: string | null;
  /** What people call it here; asked when no key fits. */
  alias?: string | null;
  heading: boolean;
  title: string;
  /** Plain words of title and text. */
  words: string;
  /** Index of the parent in its own list, or -1; always smaller than its own. */
  parent: number;
}

export type VersionMatchReason = 'chosen' | 'key' | 'same text' | 'similar text';

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
 * Which of `mine` each of `theirs` is a newer version of: by choice, else by key, else by the same text, else by similar text below the
 * same parent in about the same place. A key decides alone: items with different keys are never matched by their text.
 * `chosen` maps indexes of theirs to indexes of mine, or to -1 for "this is new".
 */
export function matchVersions(
  mine: readonly MatchNode[],
  theirs: readonly MatchNode[],
  chosen: ReadonlyMap<number, number> = new Map(),
): (Match | undefined)[] {
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
  matchText(mine, theirs, matches, taken, settled, take);
  return matches;
}

/** Items without a key on at least one side, parents before children, so that "below the same parent" is known when it is asked. */
function matchText(
  mine: readonly MatchNode[],
  theirs: readonly MatchNode[],
  matches: readonly (Match | undefined)[],
  taken: Uint8Array,
  settled: Uint8Array,
  take: (their: number, own: number, reason: VersionMatchReason, likeness?: number) => void,
): void {
  const byText = new Map<string, number[]>();
  const children = new Map<number, number[]>();
  mine.forEach((node, index) => {
    if (taken[index]) return;
    addToGroup(byText, textKey(node), index);
    addToGroup(children, node.parent, index);
  });
  const tokens = new Map<number, Set<string>>();
  const tokensOf = (index: number) => {
    let found = tokens.get(index);
    if (!found) tokens.set(index, (found = new Set(buildTokens(mine[index]!.words))));
    return found;
  };
  theirs.forEach((node, index) => {
    if (settled[index]) return;
    const parent = node.parent < 0 ? -1 : (matches[node.parent]?.mine ?? -2);
    const mayMatch = (own: number) => !taken[own] && mine[own]!.heading === node.heading && (node.key === null || mine[own]!.key === null);
    const same = (byText.get(textKey(node)) ?? []).filter(mayMatch);
    const exact = same.find((own) => mine[own]!.parent === parent) ?? same[0];
    if (exact !== undefined) return take(index, exact, 'same text');
    const words = new Set(buildTokens(node.words));
    let best = -1;
    let bestLikeness = ALIKE;
    for (const own of (children.get(parent) ?? []).filter(mayMatch).slice(0, MOST_COMPARED)) {
      const likeness = shareOf(words, tokensOf(own));
      if (likeness > bestLikeness) {
        best = own;
        bestLikeness = likeness;
      }
    }
    if (best >= 0) take(index, best, 'similar text', bestLikeness);
  });
}

function textKey(node: MatchNode): string {
  return `${node.heading ? 1 : 0} ${node.words.trim().toLowerCase().replace(/\s+/g, ' ')}`;
}

/** Words in common, as a share of both sets together (Dice). */
function shareOf(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size + b.size === 0) return 0;
  let common = 0;
  for (const word of a) if (b.has(word)) common++;
  return (2 * common) / (a.size + b.size);
}
