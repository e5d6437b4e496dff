import { Inject, Injectable, Logger, type OnModuleDestroy } from '@nestjs/common';
import { dayOf } from '../http/clock.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { presentMoment } from '../http/caller.js';
import type { Change } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { PastRepo } from '../ledger/past.repo.js';
import { StagedChanges } from '../ledger/staged-changes.js';
import { LiveService } from '../live/live.service.js';
import { loadPast } from './past-state.js';
import { ProjectState } from './project-state.js';
import { ProjectStateRepo } from './project-state.repo.js';

/** How often the day is looked at: clocks jump, and computers sleep through midnight. */
const DAY_CHECK_MS = 20_000;

/** Past projects that stay in memory: somebody looks from one to another. */
const PAST_KEPT = 3;

/** Projects in memory: loaded on first use, then following every commit, and the days. */
@Injectable()
export class ProjectStates implements OnModuleDestroy {
  private readonly loading = new Map<string, Promise<ProjectState>>();
  private readonly present = new Map<string, ProjectState>();
  /** As they stood after earlier changes, by project and change. */
  private readonly past = new Map<string, Promise<ProjectState>>();
  private readonly logger = new Logger('Projects');
  private readonly watch = setInterval(() => this.followDay(), DAY_CHECK_MS).unref();

  constructor(
    @Inject(ProjectStateRepo) private readonly repo: ProjectStateRepo,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(PastRepo) private readonly pastRepo: PastRepo,
    @Inject(StagedChanges) private readonly staged: StagedChanges,
    @Inject(LiveService) private readonly live: LiveService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Refuses with `not-found` when there is no such project. */
  async get(id: string): Promise<ProjectState> {
    const moment = presentMoment();
    return moment === undefined ? this.getPresent(id) : this.getAt(id, moment);
  }

  private async getPresent(id: string): Promise<ProjectState> {
    let loading = this.loading.get(id);
    if (!loading) {
      loading = this.load(id);
      this.loading.set(id, loading);
      loading.then(
        (state) => this.present.set(id, state),
        () => this.loading.delete(id),
      );
    }
    const state = await loading;
    this.bringToDay(state);
    return state;
  }

  private async load(id: string): Promise<ProjectState> {
    await this.staged.settle(id);
    return new ProjectState({ ...(await this.repo.load(id)), day: dayOf(this.clock.now()) });
  }

  /** A project that is in memory already, as it is now. */
  findLoaded(id: string): ProjectState | undefined {
    return this.present.get(id);
  }

  /** As it stood right after a change. Refuses one that is not there. */
  getAt(id: string, seq: number): Promise<ProjectState> {
    const key = `${id} ${seq}`;
    const loading = this.past.get(key) ?? this.loadPast(id, seq);
    // The one that was asked for last stands last.
    this.past.delete(key);
    this.past.set(key, loading);
    loading.catch(() => this.past.delete(key));
    for (const old of this.past.keys()) if (this.past.size > PAST_KEPT) this.past.delete(old);
    return loading;
  }

  private async loadPast(id: string, seq: number): Promise<ProjectState> {
    return loadPast(await this.getPresent(id), seq, { states: this.repo, rows: this.rows, past: this.pastRepo });
  }

  /**
   * Lets a project in memory follow what the database holds by now. Where it cannot, the project is dropped from memory and read anew by whoever
   * asks next: what was committed stays committed.
   */
  async apply(state: ProjectState, changes: readonly Change[], seq: number): Promise<void> {
    try {
      state.apply(changes, seq);
      if (changes.some((change) => change.entity === 'schemePart')) {
        state.learnFields(await this.repo.loadFields(state.id, state.findUnknownFields()));
        state.learnDoubtful(await this.repo.loadDoubtful(state.id, state.scheme));
      }
      if (!changes.some((change) => change.entity === 'run')) return;
      state.latest = await this.repo.loadLatest(state.id);
      state.verifying.forgetStates();
    } catch (error) {
      this.drop(state.id);
      this.logger.error(`Change ${seq} of "${state.name}" could not be followed in memory; the project is read anew. ${(error as Error).stack}`);
    }
  }

  /** Forgets a project whose memory may be behind the database: it is read anew by whoever asks next. */
  drop(id: string): void {
    this.loading.delete(id);
    this.present.delete(id);
    // What was made of it may be as wrong.
    for (const key of this.past.keys()) if (key.startsWith(id)) this.past.delete(key);
  }

  /** Tells everybody who looks on of another day, for time itself moves states. */
  followDay(): void {
    for (const state of this.present.values()) this.bringToDay(state);
  }

  onModuleDestroy(): void {
    clearInterval(this.watch);
  }

  private bringToDay(state: ProjectState): void {
    const day = dayOf(this.clock.now());
    if (state.day === day) return;
    state.beginDay(day);
    this.live.publish(state.id, { type: 'day', day });
  }
}
