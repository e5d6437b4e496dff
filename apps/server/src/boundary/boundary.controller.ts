import { addMember, getBoundary, makeContext } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { BoundaryService } from './boundary.service.js';

@Controller()
export class BoundaryController {
  constructor(@Inject(BoundaryService) private readonly boundary: BoundaryService) {}

  @Route(getBoundary)
  get(@Call(getBoundary) { params, query }: Input<typeof getBoundary>) {
    return this.boundary.get(params.project, query.about);
  }

  @Route(makeContext)
  make(@Call(makeContext) { params, body, person }: Input<typeof makeContext>) {
    return this.boundary.makeContext(params.project, person, body);
  }

  @Route(addMember)
  add(@Call(addMember) { params, body, person }: Input<typeof addMember>) {
    return this.boundary.addMember(params.project, person, params.context, body);
  }
}
