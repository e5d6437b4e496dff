import { holdInLens, lookThrough, readColours } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { ColoursService } from './colours.service.js';
import { LensesService } from './lenses.service.js';

@Controller()
export class LensesController {
  constructor(
    @Inject(LensesService) private readonly lenses: LensesService,
    @Inject(ColoursService) private readonly colours: ColoursService,
  ) {}

  @Route(readColours)
  readColours(@Call(readColours) { params }: Input<typeof readColours>) {
    return this.colours.read(params.project, params.key);
  }

  @Route(lookThrough)
  look(@Call(lookThrough) { params }: Input<typeof lookThrough>) {
    return this.lenses.look(params.project, params.lens);
  }

  @Route(holdInLens)
  hold(@Call(holdInLens) { params, body, person }: Input<typeof holdInLens>) {
    return this.lenses.hold(params.project, person, params.lens, body);
  }
}
