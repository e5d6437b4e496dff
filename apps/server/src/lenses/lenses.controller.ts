import { holdInLens, lookThrough } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { LensesService } from './lenses.service.js';

@Controller()
export class LensesController {
  constructor(@Inject(LensesService) private readonly lenses: LensesService) {}

  @Route(lookThrough)
  look(@Call(lookThrough) { params }: Input<typeof lookThrough>) {
    return this.lenses.look(params.project, params.lens);
  }

  @Route(holdInLens)
  hold(@Call(holdInLens) { params, body, person }: Input<typeof holdInLens>) {
    return this.lenses.hold(params.project, person, params.lens, body);
  }
}
