import { cancelJob, getJob, listJobs } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { JobsService } from './jobs.service.js';

@Controller()
export class JobsController {
  constructor(@Inject(JobsService) private readonly jobs: JobsService) {}

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
}
