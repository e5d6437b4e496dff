import { CoombError, listRunResults, listRuns } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { asIso } from '../changes/ledger.service.js';
import { Call, type Input, Route } from '../http/route.js';
import { ProjectStates } from '../project-state/project-states.js';
import { RunsRepo } from './runs.repo.js';

@Controller()
export class RunsController {
  constructor(
    @Inject(RunsRepo) private readonly repo: RunsRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

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
}
