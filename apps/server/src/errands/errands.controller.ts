import { giveErrands, listErrands, settleErrands } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { ErrandsService } from './errands.service.js';

@Controller()
export class ErrandsController {
  constructor(@Inject(ErrandsService) private readonly errands: ErrandsService) {}

  @Route(listErrands)
  list(@Call(listErrands) { params, query }: Input<typeof listErrands>) {
    return this.errands.list(params.project, query);
  }

  @Route(giveErrands)
  give(@Call(giveErrands) { params, body, person }: Input<typeof giveErrands>) {
    return this.errands.give(params.project, person, body);
  }

  @Route(settleErrands)
  settle(@Call(settleErrands) { params, body, person }: Input<typeof settleErrands>) {
    return this.errands.settle(params.project, person, body.errands, body.done);
  }
}
