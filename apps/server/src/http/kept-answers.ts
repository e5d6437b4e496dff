import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { Inject, Injectable } from '@nestjs/common';
import type { Request, Response } from 'express';
import { ProjectStates } from '../project-state/project-states.js';
import type { ProjectState } from '../project-state/project-state.js';
import { CLOCK, type Clock } from './tokens.js';

const pack = promisify(gzip);

interface Kept {
  /** Change and day that it is of: some figures depend on the date. */
  of: string;
  answer: Promise<{ plain: Buffer; packed: Buffer; tag: string }>;
}

/**
 * Answers that a whole project goes into, computed once for each change however many ask, packed once, and not sent again to those who have them.
 * The tag is of the contents, so that it holds over restarts and backups.
 */
@Injectable()
export class KeptAnswers {
  private readonly kept = new Map<string, Kept>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async send(request: Request, response: Response, project: string, name: string, compute: (state: ProjectState) => unknown): Promise<void> {
    const { plain, packed, tag } = await this.find(project, name, compute);
    response.set({ ETag: tag, 'Cache-Control': 'private, no-cache', Vary: 'Accept-Encoding' }).type('json');
    if (request.fresh) {
      response.status(304).end();
      return;
    }
    if (request.acceptsEncodings(['gzip', 'identity']) === 'gzip') response.set('Content-Encoding', 'gzip').end(packed);
    else response.end(plain);
  }

  private async find(project: string, name: string, compute: (state: ProjectState) => unknown): Kept['answer'] {
    const state = await this.states.get(project);
    const of = `${state.seq} ${this.clock.now().toISOString().slice(0, 10)}`;
    const key = `${project} ${name}`;
    const before = this.kept.get(key);
    if (before?.of === of) return before.answer;
    const answer = this.make(() => compute(state));
    this.kept.set(key, { of, answer });
    answer.catch(() => {
      if (this.kept.get(key)?.answer === answer) this.kept.delete(key);
    });
    return answer;
  }

  private async make(compute: () => unknown): Kept['answer'] {
    const plain = Buffer.from(JSON.stringify(compute()));
    const packed = await pack(plain, { level: 3 });
    return { plain, packed, tag: `W/"${createHash('sha256').update(plain).digest('base64url').slice(0, 27)}"` };
  }
}
