import { Logger } from '@nestjs/common';
import type { ProjectState } from '../project-state/project-state.js';

interface Search<Answer> {
  /** Another one when the answer may be another. */
  version: string;
  /** Whether somebody may wait for it; else what was known before is told, and the new answer the next time. */
  isShort: boolean;
  find: () => Promise<Answer>;
}

/** A search rests so many times as long as it took. */
const RESTS = 5;

/** What takes long to find of a project and is kept while it holds. */
export class FoundBeside<Answer> {
  private readonly known = new WeakMap<ProjectState, { version: string; answer: Answer }>();
  private readonly running = new WeakMap<ProjectState, Promise<void>>();
  /** Until when a search that takes long is not made again: others would wait for it all day. */
  private readonly restsUntil = new WeakMap<ProjectState, number>();
  private readonly logger: Logger;

  constructor(what: string) {
    this.logger = new Logger(what);
  }

  /** Says which answer was found last: what rests on an older one is found anew. */
  stamp(state: ProjectState): string {
    return this.known.get(state)?.version ?? '';
  }

  async find(state: ProjectState, search: Search<Answer>): Promise<Answer | undefined> {
    const known = this.known.get(state);
    if (known?.version === search.version) return known.answer;
    if (!search.isShort && performance.now() < (this.restsUntil.get(state) ?? 0)) return known?.answer;
    const running = this.running.get(state) ?? this.run(state, search);
    this.running.set(state, running);
    if (search.isShort) await running;
    return this.known.get(state)?.answer;
  }

  private async run(state: ProjectState, { version, find }: Search<Answer>): Promise<void> {
    const begun = performance.now();
    try {
      this.known.set(state, { version, answer: await find() });
    } catch (error) {
      // What cannot be found now is found the next time.
      this.logger.warn(`In "${state.name}" it could not be found: ${(error as Error).message}`);
    } finally {
      this.running.delete(state);
      this.restsUntil.set(state, performance.now() + RESTS * (performance.now() - begun));
    }
  }
}
