import type { Collection, ReplyOf, getProject, listProjects } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { checkScheme, defaultScheme, readSchemeFile, type SchemeFile, takeApart } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { countWaiting } from '../check/waiting.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change, CollectionValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { LedgerService } from '../changes/ledger.service.js';
import { ProjectStates } from '../project-state/project-states.js';
import { ReportsRepo } from '../reports/reports.repo.js';
import { buildPartRows } from '../project-state/scheme-parts.js';
import { assertOffered } from '../items/items.service.js';
import { getStarter, SetsService } from '../sets/sets.service.js';
import { type Counts, ProjectsRepo } from './projects.repo.js';

type Project = ReplyOf<typeof listProjects>[number];

@Injectable()
export class ProjectsService {
  private readonly counts = new Map<string, { seq: number; counts: Counts }>();

  constructor(
    @Inject(ProjectsRepo) private readonly repo: ProjectsRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(ReportsRepo) private readonly reports: ReportsRepo,
    @Inject(SetsService) private readonly sets: SetsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async list(): Promise<Project[]> {
    const projects: Project[] = [];
    for (const { id, name, createdAt, seq, archived, withdrawn } of await this.repo.list()) {
      const standing = withdrawn ? 'out' : archived ? 'archived' : 'open';
      projects.push({ id, name, createdAt: new Date(createdAt).toISOString(), standing, ...(await this.count(id, seq)) });
    }
    return projects;
  }

  /** With the scheme of a file, of a starter (and then its collections and first outline), or the usual one. Refuses a scheme that cannot stand. */
  async create(
    person: string,
    { name, starter: id, outline = true, scheme }: { name: string; starter?: string | undefined; outline?: boolean; scheme?: SchemeFile | undefined },
  ): Promise<Project> {
    const starter = id === undefined ? undefined : getStarter(id);
    const parts = scheme ? readSchemeFile(scheme) : takeApart(starter?.scheme ?? defaultScheme);
    const errors = checkScheme(parts).filter((issue) => issue.severity === 'error');
    if (errors.length > 0) throw new CoombError('input-invalid', errors.map((issue) => issue.message).join(' '), { issues: errors });
    const row = { id: this.clock.newId(), name, createdAt: this.clock.now().toISOString() };
    await this.repo.insert(row, buildPartRows(row.id, parts, this.clock.newId));
    if (starter && outline && !scheme) await this.sets.start(row.id, person, starter);
    return this.summary(row.id);
  }

  /** Sets a project aside or puts it back; nothing of it is lost. */
  async stand(id: string, person: string, standing: Project['standing']): Promise<Project> {
    await this.ledger.change(id, async (state) => {
      const before = (await this.rows.findRows('project', [id])).get(id)!;
      if (state.standing === standing) return { person, action: '', changes: [] };
      const after = { ...before, archived: standing === 'archived', withdrawn: standing === 'out', revision: before.revision + 1 };
      const did = { open: 'Put back', archived: 'Archive', out: 'Take out' }[standing];
      return { person, action: `${did} the project ${state.name}`, changes: [{ entity: 'project', before, after }] };
    });
    return this.summary(id);
  }

  async rename(id: string, person: string, name: string): Promise<Project> {
    await this.ledger.change(id, async (state) => {
      const before = (await this.rows.findRows('project', [id])).get(id)!;
      if (before.name === name) return { person, action: '', changes: [] };
      return {
        person,
        action: `Rename the project ${state.name} to ${name}`,
        changes: [{ entity: 'project', before, after: { ...before, name, revision: before.revision + 1 } }],
      };
    });
    return this.summary(id);
  }

  async get(id: string): Promise<ReplyOf<typeof getProject>> {
    const state = await this.states.get(id);
    const last = await this.reports.findLastSeq(id);
    return {
      ...(await this.summary(id)),
      seq: state.seq,
      scheme: state.scheme,
      sets: state.contents.liveSets().map(({ id: set, name, revision }) => ({ id: set, name, revision })),
      collections: state.contents.describe(state.items),
      waiting: countWaiting(state, last),
    };
  }

  async createCollection(projectId: string, person: string, wanted: Pick<CollectionValue, 'name' | 'holds' | 'prefix' | 'kind'>): Promise<Collection> {
    let id = '';
    await this.ledger.change(projectId, async (state) => {
      assertOffered(state.scheme, wanted.kind);
      const after: CollectionValue = { id: this.clock.newId(), projectId, revision: 1, withdrawn: false, rank: state.seq, setId: null, ...wanted };
      id = after.id;
      const change: Change = { entity: 'collection', before: null, after };
      return { person, action: `Add the collection ${wanted.name}`, changes: [change] };
    });
    const state = await this.states.get(projectId);
    return state.contents.describe(state.items).find((collection) => collection.id === id)!;
  }

  private async summary(id: string): Promise<Project> {
    const state = await this.states.get(id);
    return {
      id,
      name: state.name,
      createdAt: state.createdAt,
      standing: state.standing,
      ...(state === this.states.findLoaded(id) ? await this.count(id, state.seq) : state.count()),
    };
  }

  /** Counted once a change: in memory where the project is, by the database where nobody works on it. */
  private async count(id: string, seq: number): Promise<Counts> {
    const known = this.counts.get(id);
    if (known?.seq === seq) return known.counts;
    const state = this.states.findLoaded(id);
    const counts = state ? state.count() : await this.repo.count(id);
    this.counts.set(id, { seq: state?.seq ?? seq, counts });
    return counts;
  }
}
