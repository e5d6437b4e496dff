import type { BodyOf, checkFile, importFile, Job, ReplyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { findKindOfRole, getUsualKind } from '@coomb/core';
import type { FileContent } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import type { DiskRoom } from '../database/disk-room.js';
import { CLOCK, type Clock, DISK_ROOM } from '../http/tokens.js';
import { inTurns } from '../jobs/in-turns.js';
import { type JobHandle, JobsService } from '../jobs/jobs.service.js';
import type { Change, CollectionValue, RunValue } from '../ledger/change.js';
import { LedgerService } from '../changes/ledger.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { fillRecipe, followRecipe } from './apply-recipe.js';
import { buildImport, checkImport, joinBrought } from './build-import.js';
import { countBegun, sayWaiting } from './say-waiting.js';
import { keepRemarks } from './kept-remarks.js';
import { findLineage } from './find-lineage.js';
import { FilesRepo } from '../files/files.repo.js';
import type { ResultRow } from '../runs/runs.repo.js';
import { GatherRepo } from './gather.repo.js';
import { ImportAgainService } from './import-again/import-again.service.js';
import { buildDrawings, buildFiles, buildSource, itemsByName } from './source-rows.js';
import { matchCases, type TrayFile, TrayService } from '../tray/tray.service.js';

export type ImportWish = NonNullable<BodyOf<typeof importFile>>;
type CheckWish = NonNullable<BodyOf<typeof checkFile>>;
type Outcome = NonNullable<Job['outcome']>;

/** What a collection mostly holds when no recipe says it. */
const ROLE_OF = { specification: 'requirement', model: 'component', tests: 'test' } as const;

/** Imports a file of the tray as one batch: everything of it, or nothing. */
@Injectable()
export class ImportService {
  constructor(
    @Inject(TrayService) private readonly tray: TrayService,
    @Inject(GatherRepo) private readonly repo: GatherRepo,
    @Inject(FilesRepo) private readonly files: FilesRepo,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(ImportAgainService) private readonly again: ImportAgainService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(DISK_ROOM) private readonly room: DiskRoom,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async start(projectId: string, person: string, trayId: string, wish: ImportWish): Promise<string> {
    const file = await this.tray.read(projectId, trayId);
    // The file itself, its items, their history and the log of both.
    await this.room.assertFor(5 * file.size, `The import of ${file.name}`);
    return this.jobs.start(projectId, `Import ${file.name}`, async (handle) => {
      const outcome = await this.run(projectId, person, file, wish, handle);
      this.tray.remove(projectId, trayId);
      return outcome;
    });
  }

  /** What the import would find in the project, by the recipe asked for or the proposed one. */
  async check(projectId: string, person: string, trayId: string, wish: CheckWish): Promise<ReplyOf<typeof checkFile>> {
    const file = await this.tray.read(projectId, trayId);
    if (file.content.type === 'results') return { links: 0, issues: [], lineage: null };
    const state = await this.states.get(projectId);
    const collection = newCollection('', state, { name: '', prefix: 'NEW', holds: 'specification' }, wish);
    const context = { state, person, now: '', newId: () => '', collection, sourceId: '', pictureAddress: new Map<string, string>() };
    const outcome = await inTurns(followRecipe(state.scheme, file.content, wish));
    return { ...(await inTurns(checkImport(context, outcome, wish.again !== undefined))), lineage: findLineage(state.items, outcome.drafts) };
  }

  async run(projectId: string, person: string, file: TrayFile, wish: ImportWish, handle: JobHandle): Promise<Outcome> {
    await handle.step(0.05, 'Reading the file');
    if (wish.again) return this.again.run(projectId, person, file, { ...wish, again: wish.again }, handle);
    return file.content.type === 'results'
      ? this.importResults(projectId, person, file, file.content, wish, handle)
      : this.importItems(projectId, person, file, file.content, wish, handle);
  }

  private async importItems(
    projectId: string,
    person: string,
    file: TrayFile,
    content: Exclude<FileContent, { type: 'results' }>,
    wish: ImportWish,
    handle: JobHandle,
  ): Promise<Outcome> {
    const outcome: Outcome = { collection: null, items: 0, sections: 0, links: 0, results: 0, issues: [] };
    await this.ledger.change(projectId, async (state) => {
      const now = this.clock.now().toISOString();
      const { collection, change } = this.chooseCollection(state, wish);
      const chosen = fillRecipe(state.scheme, content, wish);
      const source = { ...buildSource(this.clock, projectId, person, now, file, { ...chosen, recipe: wish.recipe }), collectionId: collection.id };
      const { files, addresses } = await buildFiles(this.clock, projectId, source.id, file);
      const recipe = await inTurns(followRecipe(state.scheme, content, chosen));
      await handle.step(0.15, 'Making items');
      const fileNames = await this.repo.findFileNames(projectId, source.id, file.name);
      const context = { state, person, now, newId: this.clock.newId, collection, sourceId: source.id, pictureAddress: addresses, fileNames };
      const built = await inTurns(buildImport(context, recipe));
      const joined = joinBrought(context, built.changes, await this.repo.findWaitingEnds(projectId));
      built.issues.push(...sayWaiting(countBegun(built.changes), joined.joined));
      source.issues = keepRemarks([...content.issues, ...built.issues]);
      Object.assign(outcome, {
        collection: collection.id,
        items: built.items,
        sections: built.sections,
        links: built.links + joined.joined,
        issues: source.issues,
      });
      const drawings = content.type === 'model' ? buildDrawings(this.clock, collection, content.model, itemsByName(built.changes, source.id)) : [];
      await this.files.writeAhead(files);
      const changes: Change[] = [
        ...(change ? [change] : []),
        { entity: 'source', before: null, after: source },
        ...built.changes,
        ...joined.changes,
        ...drawings,
      ];
      return {
        person,
        action: `Import ${file.name}`,
        changes,
        also: (tx) => this.files.insertFiles(tx, files),
        failed: () => this.files.dropAhead(files),
        step: (done) => handle.step(0.2 + (0.75 * done) / changes.length, `Storing ${done} of ${changes.length}`),
      };
    });
    return outcome;
  }

  private async importResults(
    projectId: string,
    person: string,
    file: TrayFile,
    content: Extract<FileContent, { type: 'results' }>,
    wish: ImportWish,
    handle: JobHandle,
  ): Promise<Outcome> {
    const outcome: Outcome = { collection: null, items: 0, sections: 0, links: 0, results: 0, issues: [] };
    await this.ledger.change(projectId, async (state) => {
      const now = this.clock.now().toISOString();
      const source = buildSource(this.clock, projectId, person, now, file, wish);
      const { files } = await buildFiles(this.clock, projectId, source.id, file);
      const matches = matchCases(state, content.results.cases);
      const run: RunValue = {
        id: this.clock.newId(),
        projectId,
        revision: 1,
        withdrawn: false,
        name: wish.runName || content.results.name || file.name,
        at: readTime(content.results.at) ?? now,
        seq: state.seq + 1,
        sourceId: source.id,
      };
      const rows = content.results.cases.map(
        (one, ordinal): ResultRow => ({
          runId: run.id,
          ordinal,
          testId: matches[ordinal]!.test?.id ?? null,
          suite: one.suite,
          name: one.name,
          outcome: one.outcome,
          duration: one.duration,
          message: one.message,
          reason: matches[ordinal]!.reason,
        }),
      );
      for (const match of matches)
        if (!match.test)
          source.issues.push({
            severity: isBad(match.outcome) ? 'error' : 'warning',
            code: match.ambiguous ? 'result-ambiguous' : 'result-unmatched',
            at: `line ${match.line}`,
            message: `"${match.name}" ${isBad(match.outcome) ? `${match.outcome}, and ` : ''}${match.ambiguous ? 'fits more than one test case; none was taken' : 'fits no test case of the project'}`,
          });
      source.issues = keepRemarks(source.issues);
      Object.assign(outcome, { results: rows.filter((row) => row.testId !== null).length, issues: source.issues });
      await handle.step(0.3, 'Storing results');
      await this.files.writeAhead(files);
      return {
        person,
        action: `Import ${file.name}`,
        changes: [
          { entity: 'source', before: null, after: source },
          { entity: 'run', before: null, after: run },
        ],
        also: async (tx) => {
          await this.files.insertFiles(tx, files);
          await this.repo.insertResults(tx, rows);
        },
        failed: () => this.files.dropAhead(files),
      };
    });
    return outcome;
  }

  private chooseCollection(state: ProjectState, wish: ImportWish): { collection: CollectionValue; change?: Change } {
    const wanted = wish.collection;
    if (!wanted) throw new CoombError('input-invalid', 'Say which collection the items go to.');
    if ('id' in wanted) {
      const collection = state.contents.collections.find((one) => one.id === wanted.id && !one.withdrawn);
      if (!collection) throw new CoombError('not-found', `There is no collection ${wanted.id}.`);
      return { collection };
    }
    const collection = newCollection(this.clock.newId(), state, wanted, wish);
    return { collection, change: { entity: 'collection', before: null, after: collection } };
  }
}

function newCollection(
  id: string,
  state: ProjectState,
  { name, prefix, holds }: Pick<CollectionValue, 'name' | 'prefix' | 'holds'>,
  wish: Pick<ImportWish, 'documentRecipe' | 'sheetRecipe'>,
): CollectionValue {
  const kind = wish.documentRecipe?.kind ?? wish.sheetRecipe?.kind ?? (findKindOfRole(state.scheme, ROLE_OF[holds]) ?? getUsualKind(state.scheme)).id;
  return { id, projectId: state.id, revision: 1, withdrawn: false, name, holds, prefix, kind, rank: state.seq + 1, setId: null };
}

const isBad = (outcome: string) => outcome === 'failed' || outcome === 'broken';

function readTime(text: string | null): string | undefined {
  const time = text ? new Date(text) : undefined;
  return time && !Number.isNaN(time.getTime()) ? time.toISOString() : undefined;
}
