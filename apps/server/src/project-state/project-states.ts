import { Inject, Injectable } from '@nestjs/common';
import type { Change } from '../ledger/change.js';
import { ProjectState } from './project-state.js';
import { ProjectStateRepo } from './project-state.repo.js';

/** Projects in memory: loaded on first use, then following every commit. */
@Injectable()
export class ProjectStates {
  private readonly loaded = new Map<string, Promise<ProjectState>>();
  private readonly present = new Map<string, ProjectState>();

  constructor(@Inject(ProjectStateRepo) private readonly repo: ProjectStateRepo) {}

  /** Refuses with `not-found` when there is no such project. */
  get(id: string): Promise<ProjectState> {
    let state = this.loaded.get(id);
    if (!state) {
      state = this.repo.load(id).then((parts) => new ProjectState(parts));
      this.loaded.set(id, state);
      state.then(
        (loaded) => this.present.set(id, loaded),
        () => this.loaded.delete(id),
      );
    }
    return state;
  }

  /** A project that is in memory already. */
  findLoaded(id: string): ProjectState | undefined {
    return this.present.get(id);
  }

  async apply(state: ProjectState, changes: readonly Change[], seq: number): Promise<void> {
    state.apply(changes, seq);
    if (!changes.some((change) => change.entity === 'run')) return;
    state.latest = await this.repo.loadLatest(state.id);
    state.forget();
  }
}
