import { createBaseline, listBaselines, withdrawBaseline } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { BaselinesService } from './baselines.service.js';

@Controller()
export class BaselinesController {
  constructor(@Inject(BaselinesService) private readonly baselines: BaselinesService) {}

  @Route(listBaselines)
  list(@Call(listBaselines) { params }: Input<typeof listBaselines>) {
    return this.baselines.list(params.project);
  }

  @Route(createBaseline)
  create(@Call(createBaseline) { params, body, person }: Input<typeof createBaseline>) {
    return this.baselines.create(params.project, person, body);
  }

  @Route(withdrawBaseline)
  withdraw(@Call(withdrawBaseline) { params, person }: Input<typeof withdrawBaseline>) {
    return this.baselines.withdraw(params.project, person, params.baseline);
  }
}
