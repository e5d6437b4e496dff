import { CoombError, type Job } from '@coomb/contract';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { UpkeepService } from '../backup/upkeep.service.js';
import { findRefusal, logError } from '../http/refusal.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { LiveService } from '../live/live.service.js';

/** What long work is handed: it says how far it is, and is stopped at the next step when the person cancels. */
export interface JobHandle {
  /** Throws `job-cancelled` when the person asked to stop. `progress` from 0 to 1. */
  step: (progress: number, step: string) => Promise<void>;
}

interface RunningJob {
  project: string;
  job: Job;
  cancelled: boolean;
}

const KEPT = 20;

/** Long work with progress and cancel. Jobs live in memory: what they do is one transaction, so a stop leaves nothing half done. */
@Injectable()
export class JobsService {
  private readonly jobs = new Map<string, RunningJob>();
  private readonly logger = new Logger('Jobs');

  constructor(
    @Inject(LiveService) private readonly live: LiveService,
    @Inject(UpkeepService) private readonly upkeep: UpkeepService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  start(project: string, label: string, work: (handle: JobHandle) => Promise<NonNullable<Job['outcome']>>): string {
    const id = this.clock.newId();
    const running: RunningJob = { project, cancelled: false, job: { id, label, state: 'running', progress: 0, step: 'Starting', message: '', outcome: null } };
    this.jobs.set(id, running);
    for (const old of [...this.jobs.keys()].slice(0, Math.max(0, this.jobs.size - KEPT)))
      if (this.jobs.get(old)!.job.state !== 'running') this.jobs.delete(old);
    void this.run(running, work);
    return id;
  }

  get(project: string, id: string): Job {
    return this.find(project, id).job;
  }

  list(project: string): Job[] {
    return [...this.jobs.values()]
      .filter((one) => one.project === project)
      .map((one) => one.job)
      .reverse();
  }

  cancel(project: string, id: string): Job {
    const running = this.find(project, id);
    running.cancelled = true;
    return running.job;
  }

  private find(project: string, id: string): RunningJob {
    const running = this.jobs.get(id);
    if (running?.project !== project) throw new CoombError('not-found', 'There is no such job any more. Finished jobs are forgotten after a while.');
    return running;
  }

  private async run(running: RunningJob, work: (handle: JobHandle) => Promise<NonNullable<Job['outcome']>>): Promise<void> {
    const { job } = running;
    const step = async (progress: number, text: string) => {
      Object.assign(job, { progress, step: text });
      this.tell(running);
      await new Promise((resolve) => setImmediate(resolve));
      if (running.cancelled) throw new CoombError('job-cancelled', `${job.label} was cancelled. Nothing of it was kept.`);
    };
    try {
      await step(0, 'Starting');
      job.outcome = await work({ step });
      Object.assign(job, { state: 'done', progress: 1, step: 'Done' });
      // Long work leaves much for the database to tidy up; nobody waits for that.
      void this.upkeep.settle();
    } catch (error) {
      const refusal = findRefusal(error);
      if (!refusal) logError(this.logger, error);
      const cancelled = refusal?.code === 'job-cancelled';
      Object.assign(job, {
        state: cancelled ? 'cancelled' : 'failed',
        step: cancelled ? 'Cancelled' : 'Failed',
        message: refusal ? refusal.message : `${job.label} failed for a reason Coomb did not foresee. Nothing of it was kept; the server log tells more.`,
      });
    }
    this.tell(running);
  }

  private tell({ project, job }: RunningJob): void {
    this.live.publish(project, { type: 'job', job: job.id, state: job.state, progress: job.progress, step: job.step });
  }
}
