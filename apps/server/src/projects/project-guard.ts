import { type CanActivate, type ExecutionContext, Inject, Injectable } from '@nestjs/common';
import { CoombError } from '@coomb/contract';
import type { Request } from 'express';
import { ProjectsRepo } from './projects.repo.js';

const UUID = /^[\da-f]{8}-(?:[\da-f]{4}-){3}[\da-f]{12}$/i;

/** Refuses whatever is asked of a project that is not there, before any part of the server looks at it. */
@Injectable()
export class ProjectGuard implements CanActivate {
  /** Projects are never taken out of the database. */
  private readonly seen = new Set<string>();

  constructor(@Inject(ProjectsRepo) private readonly repo: ProjectsRepo) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const { project } = context.switchToHttp().getRequest<Request>().params;
    // Addresses that are none are refused, with their names, where they are parsed.
    if (typeof project !== 'string' || !UUID.test(project) || this.seen.has(project)) return true;
    if (!(await this.repo.isThere(project))) throw new CoombError('not-found', `There is no project ${project}.`);
    this.seen.add(project);
    return true;
  }
}
