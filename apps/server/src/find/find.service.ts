import type { ReplyOf, findItems } from '@coomb/contract';
import { excerpt, markTerms, termsOf } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { setImmediate } from 'node:timers/promises';
import { LensesService } from '../lenses/lenses.service.js';
import { ItemsRepo } from '../items/items.repo.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { FindRepo } from './find.repo.js';
import { ItemSearch } from './item-search.js';

/** Items read and taken in at a time, so that other answers are not held up. */
const AT_A_TIME = 1000;

type Found = ReplyOf<typeof findItems>;

/** Finds items by what they say. What they say is read once a project is first looked through, and followed from then on. */
@Injectable()
export class FindService {
  /** With the projects as they stand in memory: one that is read anew is searched anew. */
  private readonly searches = new WeakMap<ProjectState, Promise<ItemSearch>>();

  constructor(
    @Inject(FindRepo) private readonly repo: FindRepo,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(ItemsRepo) private readonly items: ItemsRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LensesService) private readonly lenses: LensesService,
  ) {}

  /** Best first; no words find nothing, but have the texts read for the words that will follow. */
  async find(project: string, words: string, most: number, lens?: string): Promise<Found> {
    const state = await this.states.get(project);
    const terms = termsOf(words);
    if (terms.length === 0) {
      this.open(state).catch(() => {});
      return [];
    }
    const search = await this.open(state);
    const seen = lens === undefined ? undefined : await this.lenses.seen(state, lens);
    const hits = search.find(terms, words, most, seen);
    const rows = await this.items.findMany(
      project,
      hits.map(({ document }) => state.items[document]!.id),
    );
    return hits.flatMap(({ document: node }) => {
      const brief = state.brief(node);
      const row = rows.get(brief.id);
      if (!row) return [];
      const title = markTerms(brief.title, terms);
      const reference = markTerms(brief.reference, terms);
      const isSaid = terms.every((term) => markTerms(`${brief.reference} ${brief.title}`, [term]).found > 0);
      const best = isSaid
        ? undefined
        : search
            .saidOf(node, row)
            .map((said) => ({ ...said, ...markTerms(said.text, terms) }))
            .reduce<{ where: string; text: string; marks: [number, number][]; found: number } | undefined>(
              (before, one) => (one.found > (before?.found ?? 0) ? one : before),
              undefined,
            );
      return [
        { ...brief, referenceMarks: reference.marks, titleMarks: title.marks, excerpt: best ? { where: best.where, ...excerpt(best.text, best.marks) } : null },
      ];
    });
  }

  private open(state: ProjectState): Promise<ItemSearch> {
    let search = this.searches.get(state);
    if (!search) {
      search = this.build(state);
      this.searches.set(state, search);
      search.catch(() => this.searches.delete(state));
    }
    return search;
  }

  private async build(state: ProjectState): Promise<ItemSearch> {
    const search = new ItemSearch(state, new Map((await this.rows.findAll(state.id, 'source')).map(({ id, name }) => [id, name])));
    const stop = state.follow((changes) => search.follow(changes));
    try {
      const ids = [...state.nodeOf.keys()];
      for (let at = 0; at < ids.length; at += AT_A_TIME) {
        search.load([...(await this.repo.readSaid(state.id, ids.slice(at, at + AT_A_TIME))).values()]);
        await setImmediate();
      }
      return search;
    } catch (error) {
      stop();
      throw error;
    }
  }
}
