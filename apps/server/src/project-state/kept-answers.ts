import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { Inject, Injectable } from '@nestjs/common';
import type { Request, Response } from 'express';
import { presentMoment } from '../http/caller.js';
import { ProjectStates } from './project-states.js';
import type { ProjectState } from './project-state.js';

const pack = promisify(gzip);
const PAST_KEPT = 6;

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
  private readonly past = new Set<string>();

  constructor(@Inject(ProjectStates) private readonly states: ProjectStates) {}

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
    const of = `${state.seq} ${state.day}`;
    const moment = presentMoment();
    const key = `${project} ${name}${moment === undefined ? '' : ` ${moment}`}`;
    if (moment !== undefined) this.forgetPast(key);
    const before = this.kept.get(key);
    if (before?.of === of) return before.answer;
    const answer = this.make(() => compute(state));
    this.kept.set(key, { of, answer });
    answer.catch(() => {
      if (this.kept.get(key)?.answer === answer) this.kept.delete(key);
    });
    return answer;
  }

  /** Answers of the past do not change and are asked for seldom: the last few stay. */
  private forgetPast(key: string): void {
    this.past.delete(key);
    this.past.add(key);
    for (const old of this.past)
      if (this.past.size > PAST_KEPT) {
        this.past.delete(old);
        this.kept.delete(old);
      }
  }

  private async make(compute: () => unknown): Kept['answer'] {
    const plain = Buffer.from(JSON.stringify(compute()));
    const packed = await pack(plain, { level: 3 });
    return { plain, packed, tag: `W/"${createHash('sha256').update(plain).digest('base64url').slice(0, 27)}"` };
  }
}
