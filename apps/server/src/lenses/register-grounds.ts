import { type Column, type Condition, isUseWithin, type RegisterGround, type RowUse, wordsOfTexts } from '@coomb/core';
import { plainText } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { DrawingsRepo } from '../drawing-rows/drawings.repo.js';
import { ItemFactsKeeper } from '../items/item-facts.js';
import { ItemsRepo } from '../items/items.repo.js';
import { StagedChanges } from '../ledger/staged-changes.js';
import type { ProjectState } from '../project-state/project-state.js';

/** Texts that are read at once, and words of texts that are kept found of a project. */
const BLOCK = 500;
const MOST_WORDS = 20;

/** What registers, lenses and colour keys read of a project, as it stands. */
@Injectable()
export class RegisterGrounds {
  private readonly kept = new WeakMap<ProjectState, { of: string; ground: RegisterGround }>();

  private readonly drawn = new WeakMap<ProjectState, { seq: number; of: (node: number) => readonly string[] }>();
  private readonly said = new WeakMap<ProjectState, { seq: number; nodes: Map<string, ReadonlySet<number>> }>();

  constructor(
    @Inject(ItemFactsKeeper) private readonly facts: ItemFactsKeeper,
    @Inject(ItemsRepo) private readonly items: ItemsRepo,
    @Inject(DrawingsRepo) private readonly drawings: DrawingsRepo,
    @Inject(StagedChanges) private readonly staged: StagedChanges,
  ) {}

  /** The ground with what some conditions and columns ask of texts and drawings looked up. */
  async findFor(state: ProjectState, conditions: readonly Condition[], columns: readonly Column[] = []): Promise<RegisterGround> {
    const plain = await this.find(state);
    const ground = [...conditions, ...columns].some(({ shown }) => shown.sort === 'drawnIn') ? { ...plain, drawnIn: await this.findDrawn(state) } : plain;
    const words = wordsOfTexts(conditions);
    if (words.length === 0) return { ...ground, textSays: () => new Set() };
    const found = new Map<string, ReadonlySet<number>>();
    for (const one of words) found.set(one, await this.findSaying(state, one.toLowerCase().replace(/\s+/g, ' ').trim()));
    return { ...ground, textSays: (one) => found.get(one) ?? new Set() };
  }

  private async findDrawn(state: ProjectState): Promise<(node: number) => readonly string[]> {
    const known = this.drawn.get(state);
    if (known?.seq === state.seq) return known.of;
    const names = new Map<number, Set<string>>();
    for (const { name, items } of await this.drawings.listShown(state.id))
      for (const id of items) {
        const node = id === null ? undefined : state.nodeOf.get(id);
        if (node !== undefined) names.set(node, (names.get(node) ?? new Set()).add(name));
      }
    const of = (node: number) => [...(names.get(node) ?? [])];
    this.drawn.set(state, { seq: state.seq, of });
    return of;
  }

  private async findSaying(state: ProjectState, words: string): Promise<ReadonlySet<number>> {
    let known = this.said.get(state);
    if (known?.seq !== state.seq) this.said.set(state, (known = { seq: state.seq, nodes: new Map() }));
    let nodes = known.nodes.get(words);
    if (!nodes) {
      nodes = new Set<number>();
      for await (const { id, html } of this.textsOf(state, words)) {
        const node = state.nodeOf.get(id);
        const text = plainText(html).toLowerCase().replace(/\s+/g, ' ');
        if (node !== undefined && text !== '' && text.includes(words)) (nodes as Set<number>).add(node);
      }
      for (const old of [...known.nodes.keys()].slice(0, Math.max(0, known.nodes.size - MOST_WORDS + 1))) known.nodes.delete(old);
      known.nodes.set(words, nodes);
    }
    return nodes;
  }

  private async *textsOf(state: ProjectState, words: string): AsyncGenerator<{ id: string; html: string }> {
    if (this.staged.momentOf(state.id) === undefined) return yield* await this.items.findSaying(state.id, words);
    const ids = state.items.flatMap(({ id, withdrawn, heading }) => (withdrawn || heading ? [] : [id]));
    for (let at = 0; at < ids.length; at += BLOCK) yield* (await this.items.findMany(state.id, ids.slice(at, at + BLOCK))).values();
  }

  async find(state: ProjectState): Promise<RegisterGround> {
    const facts = await this.facts.find(state);
    const of = `${state.seq} ${state.day}`;
    const known = this.kept.get(state);
    if (known?.of === of) return known.ground;
    const rules = new Map(state.scheme.rules.map((rule) => [rule.id, rule]));
    const names = new Map(state.contents.collections.map(({ id, name }) => [id, name]));
    const states = state.allStates();
    const uses = new Map<number, readonly RowUse[]>();
    const ground: RegisterGround = {
      scheme: state.scheme,
      graph: state.graph,
      items: state.items.map(({ kind, heading, withdrawn, reference, title, collectionId, parentId }) => ({
        ...{ kind, heading, withdrawn, reference, title, collection: collectionId },
        parent: parentId === null ? -1 : (state.nodeOf.get(parentId) ?? -1),
      })),
      rowOf: state.outline().rowOf,
      nameOfCollection: (collection) => names.get(collection) ?? '',
      stateOf: (node) => states[node]!,
      coverageOf: (rule, node) => {
        const found = rules.get(rule);
        return found ? state.coverage(found).stateOf(node) : 'notApplicable';
      },
      fieldsOf: (node) => facts.fields[node] ?? {},
      createdAt: (node) => facts.createdAt[node] ?? 0,
      changedAt: (node) => facts.changedAt[node] ?? 0,
      changedBy: (node) => facts.changedBy[node] ?? '',
      resultOf: (node) => {
        const last = state.latest.get(state.items[node]!.id);
        return last && { outcome: last.outcome, at: Date.parse(last.at) };
      },
      uses: {
        of: (node) => {
          let own = uses.get(node);
          if (!own) {
            own = state.usages
              .of(state.items[node]!.id)
              .flatMap(({ path, gone }) => (gone || path.length < 2 ? [] : [{ path, says: state.usages.sayPath(path) }]));
            uses.set(node, own);
          }
          return own;
        },
        holds: (link, end, { path }) => {
          const usage = state.linkUsage(link)?.[end];
          return !usage || isUseWithin(path, state.usages.pathOf(usage));
        },
        fieldsIn: ({ path }) => state.usages.fieldsIn(path),
      },
    };
    this.kept.set(state, { of, ground });
    return ground;
  }
}
