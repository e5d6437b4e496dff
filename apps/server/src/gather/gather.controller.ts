import {
  cancelJob,
  checkFile,
  compareFile,
  CoombError,
  getFile,
  getJob,
  getSourceFile,
  dropTrayEntry,
  getTrayEntry,
  getTrayPicture,
  importFile,
  listJobs,
  listRunResults,
  listRuns,
  listSources,
  listTray,
  readTrayAs,
  uploadFile,
} from '@coomb/contract';
import type { RecipeBody } from '@coomb/contract';
import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { DiskRoom } from '../database/disk-room.js';
import { Call, type Input, Route } from '../http/route.js';
import { DISK_ROOM } from '../http/tokens.js';
import { JobsService } from '../jobs/jobs.service.js';
import { asIso } from '../ledger/ledger.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { type FileRow, GatherRepo } from './gather.repo.js';
import { ImportAgainService } from './import-again/import-again.service.js';
import { ImportService } from './import.service.js';
import { assertSize, FileReceiver } from './receive-file.js';
import { TrayService } from './tray.service.js';

@Controller()
export class GatherController {
  private readonly receiver: FileReceiver;

  constructor(
    @Inject(TrayService) private readonly tray: TrayService,
    @Inject(ImportService) private readonly imports: ImportService,
    @Inject(ImportAgainService) private readonly again: ImportAgainService,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(GatherRepo) private readonly repo: GatherRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(DISK_ROOM) private readonly room: DiskRoom,
  ) {
    this.receiver = new FileReceiver(tray.incoming);
  }

  @Route(uploadFile)
  async upload(@Call(uploadFile) { params }: Input<typeof uploadFile>, @Req() request: Request, @Res({ passthrough: true }) response: Response) {
    const announced = Number(request.headers['content-length']) || 0;
    assertSize(announced);
    await this.tray.assertRoom(params.project, announced);
    await this.room.assertFor(announced, 'Handing in this file');
    const { name, path } = await this.receiver.receive(request, response);
    return this.tray.put(params.project, name, path);
  }

  @Route(listTray)
  listTray(@Call(listTray) { params }: Input<typeof listTray>) {
    return this.tray.list(params.project);
  }

  @Route(dropTrayEntry)
  dropTray(@Call(dropTrayEntry) { params }: Input<typeof dropTrayEntry>) {
    return { dropped: this.tray.remove(params.project, params.tray) };
  }

  @Route(getTrayEntry)
  getTray(@Call(getTrayEntry) { params }: Input<typeof getTrayEntry>) {
    return this.tray.get(params.project, params.tray);
  }

  @Route(readTrayAs)
  readTrayAs(@Call(readTrayAs) { params, body }: Input<typeof readTrayAs>) {
    return this.tray.readAs(params.project, params.tray, body);
  }

  @Route(getTrayPicture)
  async trayPicture(@Call(getTrayPicture) { params, query }: Input<typeof getTrayPicture>, @Res() response: Response) {
    sendFile(response, { name: query.name, ...(await this.tray.getPicture(params.project, params.tray, query.name)) });
  }

  @Route(compareFile)
  compare(@Call(compareFile) { params, body, person }: Input<typeof compareFile>) {
    return this.again.compare(params.project, person, params.tray, body);
  }

  @Route(checkFile)
  check(@Call(checkFile) { params, body, person }: Input<typeof checkFile>) {
    return this.imports.check(params.project, person, params.tray, body);
  }

  @Route(importFile)
  async import(@Call(importFile) { params, body, person }: Input<typeof importFile>) {
    return { job: await this.imports.start(params.project, person, params.tray, body) };
  }

  @Route(listJobs)
  listJobs(@Call(listJobs) { params }: Input<typeof listJobs>) {
    return this.jobs.list(params.project);
  }

  @Route(getJob)
  getJob(@Call(getJob) { params }: Input<typeof getJob>) {
    return this.jobs.get(params.project, params.job);
  }

  @Route(cancelJob)
  cancelJob(@Call(cancelJob) { params }: Input<typeof cancelJob>) {
    return this.jobs.cancel(params.project, params.job);
  }

  @Route(listSources)
  async listSources(@Call(listSources) { params }: Input<typeof listSources>) {
    const rows = await this.repo.listSources(params.project);
    const items = countBySource(await this.states.get(params.project));
    return rows.map(({ id, name, format, size, importedAt, importedBy, issues, lineageId, collectionId, recipe, recipeId }) => ({
      id,
      name,
      format,
      size,
      importedAt: asIso(importedAt),
      importedBy,
      items: items.get(lineageId ?? id) ?? 0,
      issues,
      lineage: lineageId ?? id,
      collection: collectionId,
      recipe: bodyOf(recipe),
      recipeId,
    }));
  }

  @Route(listRuns)
  async listRuns(@Call(listRuns) { params }: Input<typeof listRuns>) {
    const rows = await this.repo.listRuns(params.project);
    return rows.map((row) => ({ ...row, at: asIso(row.at) }));
  }

  @Route(listRunResults)
  async listRunResults(@Call(listRunResults) { params }: Input<typeof listRunResults>) {
    const run = (await this.repo.listRuns(params.project)).find((one) => one.id === params.run);
    if (!run) throw new CoombError('not-found', 'There is no such test run; it may have been taken back.');
    const state = await this.states.get(params.project);
    const results = await this.repo.listResults(run.id);
    return {
      run: { ...run, at: asIso(run.at) },
      results: results.map(({ suite, name, outcome, duration, message, reason, testId }) => {
        const node = testId === null ? undefined : state.nodeOf.get(testId);
        return { suite, name, outcome, duration, message, reason, test: node === undefined ? null : state.brief(node) };
      }),
    };
  }

  @Route(getFile)
  async getFile(@Call(getFile) { params }: Input<typeof getFile>, @Res() response: Response) {
    sendFile(response, await this.repo.getFile(params.project, params.file));
  }

  @Route(getSourceFile)
  async getSourceFile(@Call(getSourceFile) { params }: Input<typeof getSourceFile>, @Res() response: Response) {
    sendFile(response, await this.repo.getOriginal(params.project, params.source));
  }
}

/** A stored recipe with the sort of file that it reads. */
function bodyOf(recipe: unknown): RecipeBody | null {
  if (recipe === null || typeof recipe !== 'object') return null;
  const reads = 'headings' in recipe ? 'document' : 'relations' in recipe ? 'exchange' : 'headerRow' in recipe ? 'sheet' : undefined;
  return reads ? ({ reads, recipe } as RecipeBody) : null;
}

/** Pictures are shown in place; everything else is handed over as a download, never opened as a page of ours. */
function sendFile(response: Response, file: Pick<FileRow, 'name' | 'mediaType' | 'bytes'>): void {
  const isPicture = /^image\/(png|jpeg|gif|webp|bmp|svg\+xml)$/.test(file.mediaType);
  response.setHeader('Content-Type', isPicture ? file.mediaType : 'application/octet-stream');
  response.setHeader('Content-Disposition', `${isPicture ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name.replace(/^.*\//, ''))}`);
  // A drawing opened by itself may neither run nor fetch anything.
  response.setHeader('Content-Security-Policy', "sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src data:");
  response.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
  response.end(Buffer.from(file.bytes));
}

/** How many present items came from each lineage of sources. */
function countBySource(state: ProjectState): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { bindings, withdrawn, heading } of state.items)
    if (!withdrawn && !heading) for (const { partner } of bindings) counts.set(partner, (counts.get(partner) ?? 0) + 1);
  return counts;
}
