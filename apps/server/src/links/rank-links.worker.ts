import { type Candidate, type KnownLinks, LinkRanker, type RankedItem } from '@coomb/core';

/** Candidates for an item of the left. What the thread does not know yet it asks for: it may have been started anew. */
export interface RankTask {
  /** The two lists, and what was read of their items. */
  key: string;
  version: string;
  /** The change that the links are of. */
  seq: number;
  from: number;
  most: number;
  /** Indexes on the right that are no candidates. */
  leftOut: readonly number[];
  items?: { left: RankedItem[]; right: RankedItem[] | 'the same' };
  links?: KnownLinks;
}

export type RankAnswer = { needs: 'items' | 'links' } | { candidates: Candidate[] };

interface Known {
  version: string;
  ranker: LinkRanker;
  seq: number;
  /** Links when it last learnt. */
  learnt: number;
}

const MOST_RANKERS = 12;
/** It learns anew when so many links came or went since, of all and at least. */
const NEW_SHARE = 0.05;
const NEW_LEAST = 5;

const rankers = new Map<string, Known>();

/** Ranks away from the thread that answers people: reading and learning take seconds in a large project. */
export default function rankInWorker({ key, version, seq, from, most, leftOut, items, links }: RankTask): RankAnswer {
  let known = rankers.get(key);
  if (known?.version !== version) {
    if (!items) return { needs: 'items' };
    const ranker = new LinkRanker(items.left, items.right === 'the same' ? items.left : items.right);
    rankers.delete(key);
    rankers.set(key, (known = { version, ranker, seq: -1, learnt: -1 }));
    for (const old of [...rankers.keys()].slice(0, -MOST_RANKERS)) rankers.delete(old);
  }
  if (known.seq !== seq) {
    if (!links) return { needs: 'links' };
    const count = links.links.length + (links.refused?.length ?? 0);
    if (known.learnt < 0 || Math.abs(count - known.learnt) >= Math.max(NEW_LEAST, known.learnt * NEW_SHARE)) {
      known.ranker.learn(links);
      known.learnt = count;
    } else known.ranker.know(links);
    known.seq = seq;
  }
  const isLeftOut = new Set(leftOut);
  return { candidates: known.ranker.rank(from, most, (to) => isLeftOut.has(to)) };
}
