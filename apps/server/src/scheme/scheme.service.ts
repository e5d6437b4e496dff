import {
  type BodyOf,
  type changeScheme,
  type compareScheme,
  CoombError,
  type getScheme,
  type openSchemeEffect,
  type previewScheme,
  type ReplyOf,
  type SchemeEdit,
} from '@coomb/contract';
import {
  assembleScheme,
  checkScheme,
  compareSchemes,
  labelOf,
  readSchemeFile,
  sayDifference,
  sayEdits,
  type SchemeEntry,
  type SchemeFile,
  type SchemePart,
  withWhatTheyName,
  writeSchemeFile,
} from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change, SchemePartValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { LedgerService } from '../changes/ledger.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { toPart } from '../project-state/scheme-parts.js';
import type { Effect } from './effects/effect.js';
import { effectFamilies } from './effects/index.js';
import { SchemePlan } from './scheme-plan.js';
import { SchemeRepo } from './scheme.repo.js';
import { SchemeWork } from './scheme-work.js';

type Wish = Required<Pick<NonNullable<BodyOf<typeof changeScheme>>, 'edits'>> & Pick<NonNullable<BodyOf<typeof changeScheme>>, 'renames' | 'answers'>;

/** The scheme of a project: what it says, what a change of it would do, and the change itself. */
@Injectable()
export class SchemeService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(SchemeRepo) private readonly repo: SchemeRepo,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async get(project: string): Promise<ReplyOf<typeof getScheme>> {
    const state = await this.states.get(project);
    const rows = state.schemeNow.parts();
    return { seq: state.seq, parts: rows.map(toEdit), issues: checkScheme(rows.map(toPart)) };
  }

  async preview(project: string, wish: Wish): Promise<ReplyOf<typeof previewScheme>> {
    const plan = this.plan(await this.states.get(project), wish);
    const effects = plan.errors.length > 0 ? [] : await findEffects(plan);
    return {
      issues: [...plan.issues],
      effects: effects.map((effect) => ({
        ...{ id: effect.id, says: effect.says, count: effect.rows.length, opens: effect.rows.length > 0, choices: [...effect.choices] },
        chosen: chosenOf(plan, effect),
      })),
      differences: plan.edits.map(({ before, after }) => ({
        ...{ sort: after.sort, key: after.key, label: labelOf(after) ?? 'What verifies', isNew: before === null },
        facts: sayDifference(before && { scheme: plan.before, part: before }, { scheme: plan.after, part: after }),
      })),
    };
  }

  /** One page of what stands behind a figure of a preview. */
  async open(project: string, id: string, wish: Wish, page: { offset: number; limit: number }): Promise<ReplyOf<typeof openSchemeEffect>> {
    const state = await this.states.get(project);
    const effect = (await findEffects(this.plan(state, wish))).find((one) => one.id === id);
    if (!effect) throw new CoombError('not-found', 'This change would not do that, or does it no more. Look at the preview again.');
    return {
      total: effect.rows.length,
      rows: effect.rows.slice(page.offset, page.offset + page.limit).map(({ node, phrase = '', other, note = '' }) => ({
        item: node === null ? null : state.brief(node),
        phrase,
        other: other === undefined ? null : state.brief(other),
        note,
      })),
    };
  }

  /** Changes the scheme and what was answered about what no longer fits. Refuses what makes no scheme, and parts that others changed meanwhile. */
  change(project: string, person: string, wish: Wish): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(project, async (state) => {
      const plan = this.plan(state, wish);
      if (plan.errors.length > 0) throw new CoombError('input-invalid', plan.errors.map((issue) => issue.message).join(' '), { issues: plan.errors });
      const work = new SchemeWork();
      for (const effect of await findEffects(plan)) effect.apply?.(work, chosenOf(plan, effect) ?? '');
      const now = this.clock.now().toISOString();
      const rows = {
        items: await this.rows.findRows(project, 'item', work.itemIds),
        links: await this.rows.findRows(project, 'link', work.linkIds),
        collections: state.contents.liveCollections(),
      };
      const changes = [...this.buildEdits(state, plan), ...work.build(rows, { person, now })];
      const action = sayEdits(
        plan.edits.map(({ before, after }) => ({ before, after, label: labelOf(after) ?? '', wasCalled: (before && labelOf(before)) ?? '' })),
      );
      return { person, action, changes };
    });
  }

  async writeFile(project: string): Promise<SchemeFile> {
    const state = await this.states.get(project);
    return writeSchemeFile(state.name, state.schemeNow.parts().map(toPart));
  }

  async compare(project: string, { file }: NonNullable<BodyOf<typeof compareScheme>>): Promise<ReplyOf<typeof compareScheme>> {
    const state = await this.states.get(project);
    const rows = state.schemeNow.parts();
    const parts = rows.map(toPart);
    const theirs = readSchemeFile(file as SchemeFile);
    const entries = compareSchemes(parts, theirs);
    const scheme = assembleScheme(entries.map((entry) => entry.theirs));
    const revisionOf = new Map(rows.map((row) => [`${row.sort} ${row.key}`, row.revision]));
    const name = (entry: SchemeEntry) => `${entry.sort} ${entry.key}`;
    const found = new Set(entries.map(name));
    // New parts stand behind the present ones, in the order of the file.
    const last = (sort: SchemePart['sort']) => Math.max(-1, ...parts.filter((part) => part.sort === sort).map((part) => part.rank)) + 1;
    return {
      entries: entries.map((entry) => ({
        ...{ sort: entry.sort, key: entry.key, label: labelOf(entry.theirs) ?? 'What verifies', state: entry.state },
        facts: sayDifference(entry.ours && { scheme: state.scheme, part: entry.ours }, { scheme, part: entry.theirs }),
        edit: {
          ...entry.theirs,
          rank: entry.ours ? entry.ours.rank : last(entry.sort) + entry.theirs.rank,
          revision: revisionOf.get(name(entry)) ?? null,
        } as SchemeEdit,
        needs: withWhatTheyName([entry], entries)
          .filter((other) => other !== entry)
          .map(name),
      })),
      onlyHere: parts
        .filter((part) => !part.retired && !found.has(`${part.sort} ${part.key}`))
        .map((part) => ({ sort: part.sort, key: part.key, label: labelOf(part) ?? 'What verifies' })),
    };
  }

  private plan(state: ProjectState, { edits, renames = [], answers = {} }: Wish): SchemePlan {
    return new SchemePlan(
      state,
      { edits: edits as SchemeEdit[], renames, answers },
      (field) => this.repo.findValues(state.id, field),
      () => this.rows.findAll(state.id, 'recipe'),
    );
  }

  private buildEdits(state: ProjectState, plan: SchemePlan): Change[] {
    const made = new Map<string, number>();
    for (const { sort } of state.schemeNow.parts()) made.set(sort, (made.get(sort) ?? 0) + 1);
    return plan.edits.map(({ row: before, after: { retired, ...after } }): Change => {
      const number = before?.number ?? made.get(after.sort) ?? 0;
      if (!before) made.set(after.sort, number + 1);
      const tracked = { id: before?.id ?? this.clock.newId(), projectId: state.id, revision: (before?.revision ?? 0) + 1, withdrawn: retired };
      return { entity: 'schemePart', before, after: { ...tracked, ...after, number } };
    });
  }
}

async function findEffects(plan: SchemePlan): Promise<Effect[]> {
  const effects: Effect[] = [];
  for (const family of effectFamilies) effects.push(...(await family.find(plan)));
  return effects;
}

/** The choice that holds for an effect: the one asked for where it is one, else the first. */
function chosenOf(plan: SchemePlan, { id, choices }: Effect): string | null {
  const asked = plan.wish.answers[id];
  return (choices.find((choice) => choice.id === asked) ?? choices[0])?.id ?? null;
}

function toEdit(row: SchemePartValue): SchemeEdit {
  return { ...toPart(row), revision: row.revision } as SchemeEdit;
}
