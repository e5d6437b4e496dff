import type { ReplyOf, suggestLinks } from '@coomb/contract';
import { type KnownLinks, LinkRanker, type RankedItem, type Reason, writtenWords } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { ItemReadingService } from '../items/item-reading.service.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';

type Suggestions = ReplyOf<typeof suggestLinks>;

/** A ranker of one collection towards another, with the items by their places in it. */
interface Known {
  /** What was read of the items: another one asks for another ranker. */
  texts: string;
  /** The change that its links are of. */
  seq: number;
  left: number[];
  right: number[];
  ranker: LinkRanker;
  /** Links when it last learnt. */
  learnt: number;
}

const MOST_RANKERS = 12;
const MOST_WORDS = 5;
/** It learns anew when so many links came or went since, of all and at least. */
const NEW_SHARE = 0.05;
const NEW_LEAST = 5;

/** Likely other ends for an item, by words, places and the links that are there. */
@Injectable()
export class SuggestionsService {
  private readonly rankers = new Map<string, Known>();

  constructor(
    @Inject(ItemReadingService) private readonly reading: ItemReadingService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

  async suggest(projectId: string, item: string, collection: string, most: number): Promise<Suggestions> {
    const state = await this.states.get(projectId);
    const node = getNode(state, item);
    const known = await this.find(state, state.items[node]!.collectionId, collection);
    const from = known.left.indexOf(node);
    if (from < 0) return [];
    const linked = new Set([
      ...state.graph.findLinks(node, 'out').map((link) => state.graph.to[link]!),
      ...state.graph.findLinks(node, 'in').map((link) => state.graph.from[link]!),
    ]);
    const isLeftOut = (to: number) => linked.has(known.right[to]!) || known.right[to] === node || state.items[known.right[to]!]!.heading;
    const written = writtenWords(await this.reading.readText(state, node));
    return known.ranker.rank(from, most, isLeftOut).flatMap(({ index, score, likelihood, reasons }) => {
      if (reasons.length === 0) return [];
      const told = reasons.map((reason) => tell(state, known, reason, written));
      const shared = told.flatMap((one) => (one.sort === 'words' || one.sort === 'title' ? one.words : []));
      return [{ item: state.brief(known.right[index]!), score, likelihood, reasons: told, shared: [...new Set(shared)].slice(0, MOST_WORDS) }];
    });
  }

  private async find(state: ProjectState, leftCollection: string, rightCollection: string): Promise<Known> {
    const key = `${state.id} ${leftCollection} ${rightCollection}`;
    const outline = Array.from(state.outline().nodes);
    const nodesOf = (collection: string) => outline.filter((node) => state.items[node]!.collectionId === collection);
    const left = nodesOf(leftCollection);
    const right = leftCollection === rightCollection ? left : nodesOf(rightCollection);
    const texts = [left, right]
      .map((nodes) => nodes.map((node) => `${node}.${state.items[node]!.meaningSeq}.${state.items[node]!.parentId ?? ''}`).join(' '))
      .join('|');
    let known = this.rankers.get(key);
    if (known?.texts !== texts) {
      const items = await this.read(state, left);
      const ranker = new LinkRanker(items, right === left ? items : await this.read(state, right));
      known = { texts, seq: -1, left, right, ranker, learnt: -1 };
      this.rankers.delete(key);
      this.rankers.set(key, known);
      for (const old of [...this.rankers.keys()].slice(0, -MOST_RANKERS)) this.rankers.delete(old);
    }
    if (known.seq !== state.seq) {
      const links = findLinks(state, known);
      const change = Math.abs(links.links.length - known.learnt);
      if (known.learnt < 0 || change >= Math.max(NEW_LEAST, known.learnt * NEW_SHARE)) {
        known.ranker.learn(links);
        known.learnt = links.links.length;
      } else known.ranker.know(links);
      known.seq = state.seq;
    }
    return known;
  }

  private async read(state: ProjectState, nodes: readonly number[]): Promise<RankedItem[]> {
    const texts = await this.reading.readTexts(state, nodes);
    const at = new Map(nodes.map((node, index) => [state.items[node]!.id, index]));
    return nodes.map((node, index) => ({ ...texts[index]!, parent: at.get(state.items[node]!.parentId ?? '') ?? -1 }));
  }
}

/** Links of any kind and direction between the two, and all others around them by their nodes. */
function findLinks({ graph }: ProjectState, { left, right }: Known): KnownLinks {
  const at = new Map(right.map((node, index) => [node, index]));
  const aroundOf = (node: number) => [
    ...graph.findLinks(node, 'out').map((link) => graph.to[link]!),
    ...graph.findLinks(node, 'in').map((link) => graph.from[link]!),
  ];
  const around = { left: left.map(aroundOf), right: right === left ? ([] as number[][]) : right.map(aroundOf) };
  if (right === left) around.right = around.left;
  const links = around.left.flatMap((others, from) => [...new Set(others)].flatMap((other) => (at.has(other) ? [[from, at.get(other)!] as const] : [])));
  return { links, around };
}

/** Words as the item writes them, and items by what they are. */
function tell(state: ProjectState, { left }: Known, reason: Reason, written: ReadonlyMap<string, string>): Suggestions[number]['reasons'][number] {
  if (reason.sort === 'alike') return { sort: 'alike', like: state.brief(left[reason.like]!) };
  if (reason.sort === 'words' || reason.sort === 'title')
    return { ...reason, words: reason.words.slice(0, MOST_WORDS).map((word) => written.get(word) ?? word) };
  return reason;
}
