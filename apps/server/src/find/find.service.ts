import type { ReplyOf, findItems } from '@coomb/contract';
import { excerpt, markTerms, termsOf } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { setImmediate } from 'node:timers/promises';
import { ItemsRepo } from '../items/items.repo.js';
import { ProjectStates } from '../project-state/project-states.js';
import { FindRepo } from './find.repo.js';
import { ItemSearch } from './item-search.js';

/** Items read and taken in at a time, so that other answers are not held up. */
const AT_A_TIME = 1000;

type Found = ReplyOf<typeof findItems>;

/** Finds items by what they say. What they say is read once a project is first looked through, and followed from then on. */
@Injectable()
export class FindService {
  private readonly searches = new Map<string, Promise<ItemSearch>>();

  constructor(
    @Inject(FindRepo) private readonly repo: FindRepo,
    @Inject(ItemsRepo) private readonly items: ItemsRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

  /** Best first; no words find nothing, but have the texts read for the words that will follow. */
  async find(project: string, words: string, most: number): Promise<Found> {
    const state = await this.states.get(project);
    const terms = termsOf(words);
    if (terms.length === 0) {
      this.open(project).catch(() => {});
      return [];
    }
    const search = await this.open(project);
    const hits = search.find(terms, words, most);
    const rows = await this.items.findMany(hits.map(({ document }) => state.items[document]!.id));
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

  private open(project: string): Promise<ItemSearch> {
    let search = this.searches.get(project);
    if (!search) {
      search = this.build(project);
      this.searches.set(project, search);
      search.catch(() => this.searches.delete(project));
    }
    return search;
  }

  private async build(project: string): Promise<ItemSearch> {
    const state = await this.states.get(project);
    const search = new ItemSearch(state, await this.repo.sourceNames(project));
    const stop = state.follow((changes) => search.follow(changes));
    try {
      for (let after: string | undefined; ; ) {
        const rows = await this.repo.readAfter(project, after, AT_A_TIME);
        search.load(rows);
        if (rows.length < AT_A_TIME) return search;
        after = rows.at(-1)!.id;
        await setImmediate();
      }
    } catch (error) {
      stop();
      throw error;
    }
  }
}
