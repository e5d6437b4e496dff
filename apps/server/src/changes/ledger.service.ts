import { setImmediate } from 'node:timers/promises';
import { type Batch, CoombError, type getBatch, type ReplyOf } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import type { Connection } from '../database/database.js';
import { presentHand, presentMoment } from '../http/caller.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { LiveService } from '../live/live.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { PersonsService } from '../persons/persons.service.js';
import { type Change, invert, UNNUMBERED } from '../ledger/change.js';
import { isAsLeft } from '../ledger/entities.js';
import { assertHomes } from './assert-homes.js';
import { describeChange } from './describe-change.js';
import { type BatchRow, LedgerRepo } from '../ledger/ledger.repo.js';
import { StagedChanges } from '../ledger/staged-changes.js';

/** Changes that are taken back before others get their turn. */
const AT_ONCE = 250;

export interface Commit {
  person: string;
  /** What was done, in a few words, as the history and undo show it. */
  action: string;
  changes: Change[];
  /** Rows beside the undoable ones (files, results), written in the same transaction. */
  also?: (tx: Connection) => Promise<void>;
  /** Called when nothing of it was kept, to take back what was written ahead of it. */
  failed?: () => Promise<void>;
  /** Called now and then while many changes are written; throwing undoes everything. */
  step?: (done: number) => Promise<void>;
}

/**
 * The only way to change a project: one batch, valid at once or not at all, one entry in the append-only history, then memory and the live stream.
 * Work on one project is done one after the other, so what was read inside `work` still holds when it is written.
 */
@Injectable()
export class LedgerService {
  private readonly queues = new Map<string, Promise<unknown>>();

  constructor(
    @Inject(LedgerRepo) private readonly repo: LedgerRepo,
    @Inject(StagedChanges) private readonly staged: StagedChanges,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LiveService) private readonly live: LiveService,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Runs `work` when nothing else changes the project, and commits what it gives back. */
  change(projectId: string, work: (state: ProjectState) => Promise<Commit>): Promise<{ seq: number; ids: string[] }> {
    return this.inTurn(projectId, async (state) => {
      const commit = await work(state);
      if (commit.changes.length === 0 && !commit.also) return { seq: state.seq, ids: [] };
      assertHomes(state, commit.changes, commit.action, 'do');
      const batch = await this.write(state, commit, 'do', null);
      return { seq: batch.seq, ids: commit.changes.map((change) => change.after.id) };
    });
  }

  async undo(projectId: string, person: string): Promise<{ seq: number; action: string }> {
    return this.inTurn(projectId, async (state) => {
      const done = await this.repo.findLastDone(projectId, { person, hand: presentHand() });
      if (!done) throw new CoombError('nothing-to-undo', 'There is nothing of yours to undo.');
      return this.takeBack(state, done, done, 'undo');
    });
  }

  async redo(projectId: string, person: string): Promise<{ seq: number; action: string }> {
    return this.inTurn(projectId, async (state) => {
      const last = await this.repo.findLastUndone(projectId, { person, hand: presentHand() });
      if (!last) throw new CoombError('nothing-to-undo', 'There is nothing to do again: nothing was undone since your last action.');
      return this.takeBack(state, last.undo, last.done, 'redo');
    });
  }

  async findUndo(projectId: string, person: string): Promise<{ undo: string | null; redo: string | null }> {
    const who = { person, hand: presentHand() };
    const done = await this.repo.findLastDone(projectId, who);
    const undone = await this.repo.findLastUndone(projectId, who);
    return { undo: done?.action ?? null, redo: undone?.done.action ?? null };
  }

  async list(projectId: string, before: number | undefined, most: number): Promise<Batch[]> {
    const moment = presentMoment();
    const until = moment === undefined ? before : Math.min(moment + 1, before ?? Number.POSITIVE_INFINITY);
    const rows = await this.repo.listBatches(projectId, until, most);
    return this.describeBatches(projectId, rows);
  }

  /** One page of the rows that a batch changed. Refuses with `not-found`. */
  async getBatch(projectId: string, seq: number, offset: number, most: number): Promise<ReplyOf<typeof getBatch>> {
    const state = await this.states.get(projectId);
    const batch = await this.repo.findBatch(projectId, seq);
    if (!batch || seq > state.seq) throw new CoombError('not-found', `There is no change ${seq} in this project.`);
    const changes = await this.repo.findChanges(projectId, seq, { offset, most });
    return { batch: (await this.describeBatches(projectId, [batch]))[0]!, total: batch.size, rows: changes.map((change) => describeChange(state, change)) };
  }

  private async describeBatches(projectId: string, rows: readonly BatchRow[]): Promise<Batch[]> {
    const moment = presentMoment();
    const isUndone = new Set(rows.filter((row) => row.undoneSeq !== null).map((row) => row.id));
    const undone =
      moment === undefined
        ? isUndone
        : await this.repo.findUndoneAsOf(
            projectId,
            rows.map((row) => row.id),
            moment,
          );
    return rows.map((row) => describeBatch(row, undone.has(row.id)));
  }

  /** Inverts `batch`; `done` is the action it is or belongs to. */
  private async takeBack(state: ProjectState, batch: BatchRow, done: BatchRow, kind: 'undo' | 'redo'): Promise<{ seq: number; action: string }> {
    const former = await this.repo.findChanges(state.id, batch.seq);
    const changes: Change[] = [];
    for (const entity of new Set(former.map((change) => change.entity))) {
      const own = former.filter((change) => change.entity === entity);
      const rows = await this.repo.findRows(
        entity,
        own.map((change) => change.after.id),
      );
      for (const [index, change] of own.reverse().entries()) {
        if (index % AT_ONCE === AT_ONCE - 1) await setImmediate();
        const current = rows.get(change.after.id);
        if (!current || !isAsLeft(entity, change.after, current))
          throw new CoombError(
            'undo-refused',
            `"${done.action}" cannot be ${kind === 'undo' ? 'undone' : 'done again'}: ${nameOf(change)} was changed since. Change it by hand instead.`,
          );
        const inverted = invert(change, current);
        // An inverted change is of the entity that it inverts; the compiler does not follow that.
        rows.set(change.after.id, inverted.after as never);
        changes.push(inverted);
      }
    }
    const action = `${kind === 'undo' ? 'Undo' : 'Redo'}: ${done.action}`;
    assertHomes(state, changes, done.action, kind);
    const written = await this.write(state, { person: done.person, action, changes }, kind, done.id);
    return { seq: written.seq, action: done.action };
  }

  private async write(state: ProjectState, commit: Commit, kind: BatchRow['kind'], target: string | null): Promise<BatchRow> {
    if (state.standing !== 'open' && !commit.changes.some((change) => change.entity === 'project'))
      throw new CoombError(
        'project-set-aside',
        `${state.name} is ${state.standing === 'out' ? 'taken out' : 'archived'}: it can be read, not changed. Put it back to work on it.`,
      );
    const changes = numberItems(commit.changes, state.items.length);
    const batch: BatchRow = {
      id: this.clock.newId(),
      projectId: state.id,
      seq: state.seq + 1,
      at: this.clock.now().toISOString(),
      person: commit.person,
      hand: presentHand(),
      action: commit.action,
      kind,
      target,
      undoneSeq: null,
      size: changes.length,
    };
    const written = this.staged.write(batch, changes, {
      step: commit.step ?? (async () => {}),
      finish: async (tx) => {
        await commit.also?.(tx);
        if (target) await this.repo.setUndone(tx, target, kind === 'undo' ? batch.seq : null);
      },
      follow: () => this.states.apply(state, changes, batch.seq),
    });
    await written.catch(async (error) => {
      await commit.failed?.().catch(() => {});
      // It may have become valid and only the answer be lost, or not be taken back yet: the project is read anew.
      this.states.drop(state.id);
      throw error;
    });
    this.live.publish(state.id, {
      type: 'change',
      seq: batch.seq,
      person: this.persons.nameOf(batch.person),
      action: batch.action,
      items: changes
        .filter((change) => change.entity === 'item')
        .slice(0, 500)
        .map((change) => change.after.id),
    });
    return batch;
  }

  private async inTurn<T>(projectId: string, work: (state: ProjectState) => Promise<T>): Promise<T> {
    const before = this.queues.get(projectId) ?? Promise.resolve();
    const mine = before.catch(() => {}).then(async () => work(await this.states.get(projectId)));
    this.queues.set(projectId, mine);
    // Nothing stays in memory of a project that nobody works on, or that does not exist.
    const forget = () => {
      if (this.queues.get(projectId) === mine) this.queues.delete(projectId);
    };
    mine.then(forget, forget);
    return mine;
  }
}

/** Gives new items the numbers that follow, from `next` on. */
function numberItems(changes: readonly Change[], next: number): Change[] {
  const given = new Map<string, number>();
  return changes.map((change) => {
    if (change.entity !== 'item' || change.after.node !== UNNUMBERED) return change;
    const node = given.get(change.after.id) ?? next + given.size;
    given.set(change.after.id, node);
    return { ...change, after: { ...change.after, node } };
  });
}

function nameOf(change: Change): string {
  return change.entity === 'item' ? change.after.reference : `a ${change.entity}`;
}

/** Times from the database come with a space and an offset; the interface speaks ISO in UTC. */
export function asIso(time: string): string {
  return new Date(time).toISOString();
}

function describeBatch(row: BatchRow, undone: boolean): Batch {
  return { id: row.id, seq: row.seq, at: asIso(row.at), person: row.person, action: row.action, changes: row.size, undone };
}
