import { type CanActivate, type ExecutionContext, Inject, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { CoombError, needs } from '@coomb/contract';
import type { Request } from 'express';
import { readAsOf } from '../http/caller.js';
import { ENDPOINT_NAME } from '../http/route.js';
import { ProjectsRepo } from './projects.repo.js';

const UUID = /^[\da-f]{8}-(?:[\da-f]{4}-){3}[\da-f]{12}$/i;

/** Refuses whatever is asked of a project that is not there, and changes of what is past, before any part of the server looks at it. */
@Injectable()
export class ProjectGuard implements CanActivate {
  /** Projects are never taken out of the database. */
  private readonly seen = new Set<string>();

  constructor(
    @Inject(ProjectsRepo) private readonly repo: ProjectsRepo,
    @Inject(Reflector) private readonly reflector: Reflector,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<Request>();
    const { project } = request.params;
    // Addresses that are none are refused, with their names, where they are parsed.
    if (typeof project !== 'string' || !UUID.test(project)) return true;
    await this.assertThere(project);
    const { asOf } = request.query;
    if (asOf === undefined || asOf === '') return true;
    const seq = typeof asOf === 'string' && /^\d{1,9}$/.test(asOf) ? Number(asOf) : 0;
    const last = await this.repo.findSeq(project);
    if (seq < 1 || seq > last)
      throw new CoombError('input-invalid', `asOf: ${JSON.stringify(asOf).slice(0, 40)} is no change of this project; there are 1 to ${last}.`);
    const name = this.reflector.get<string | undefined>(ENDPOINT_NAME, context.getHandler());
    if (name === undefined || needs[name] !== 'read')
      throw new CoombError('past-unchangeable', `Change ${seq} is past: what stood then can be read, not changed. Leave "asOf" out to change what stands now.`);
    // The present need not be built a second time.
    if (seq < last) readAsOf(seq);
    return true;
  }

  private async assertThere(project: string): Promise<void> {
    if (this.seen.has(project)) return;
    if (!(await this.repo.isThere(project))) throw new CoombError('not-found', `There is no project ${project}.`);
    this.seen.add(project);
  }
}
