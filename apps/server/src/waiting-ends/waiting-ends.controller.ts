import { endWaiting, joinWaitingEnd } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { WaitingEndsService } from './waiting-ends.service.js';

@Controller()
export class WaitingEndsController {
  constructor(@Inject(WaitingEndsService) private readonly waiting: WaitingEndsService) {}

  @Route(joinWaitingEnd)
  join(@Call(joinWaitingEnd) { params, body, person }: Input<typeof joinWaitingEnd>) {
    return this.waiting.join(params.project, person, params.end, body.item);
  }

  @Route(endWaiting)
  letGo(@Call(endWaiting) { params, person }: Input<typeof endWaiting>) {
    return this.waiting.letGo(params.project, person, params.end);
  }
}
