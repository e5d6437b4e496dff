import { Logger } from '@nestjs/common';
import type { ProjectState } from '../project-state/project-state.js';

interface Search<Answer> {
  /** Another one when the answer may be another. */
  version: string;
  /** Whether somebody may wait for it; else what was known before is told, and the new answer the next time. */
  isShort: boolean;
  find: () => Promise<Answer>;
}

/** What takes long to find of a project and is kept while it holds. */
export class FoundBeside<Answer> {
  private readonly known = new WeakMap<ProjectState, { version: string; answer: Answer }>();
  private readonly running = new WeakMap<ProjectState, Promise<void>>();
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
    const running = this.running.get(state) ?? this.run(state, search);
    this.running.set(state, running);
    if (search.isShort) await running;
    return this.known.get(state)?.answer;
  }

  private async run(state: ProjectState, { version, find }: Search<Answer>): Promise<void> {
    try {
      this.known.set(state, { version, answer: await find() });
    } catch (error) {
      // What cannot be found now is found the next time.
      this.logger.warn(`In "${state.name}" it could not be found: ${(error as Error).message}`);
    } finally {
      this.running.delete(state);
    }
  }
}
