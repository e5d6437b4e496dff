import { type DoubtfulLink, findDoubtful, groupBy, type KnownLinks, LinkRanker, type RankedItem } from '@coomb/core';

/** Links between two lists, of which the right one is the longer. */
export interface JudgeTask {
  items: { left: RankedItem[]; right: RankedItem[] | 'the same' };
  known: KnownLinks;
  /** What is judged, each with its kind: what is usual is told by kind. */
  judged: { from: number; to: number; kind: number }[];
}

/** Judges links away from the thread that answers people; tells the doubtful ones by their places among the judged. */
export default function judgeLinksInWorker({ items, known, judged }: JudgeTask): DoubtfulLink[] {
  const ranker = new LinkRanker(items.left, items.right === 'the same' ? items.left : items.right);
  ranker.learn(known);
  const standings = ranker.judge(judged.map(({ from, to }) => [from, to] as const));
  return [...groupBy([...judged.keys()], (place) => judged[place]!.kind).values()].flatMap((places) =>
    findDoubtful(places.map((place) => standings[place]!)).map((one) => ({ ...one, place: places[one.place]! })),
  );
}
