import { listUses, listWholes } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { CompositionService } from './composition.service.js';

@Controller()
export class CompositionController {
  constructor(@Inject(CompositionService) private readonly composition: CompositionService) {}

  @Route(listWholes)
  wholes(@Call(listWholes) { params }: Input<typeof listWholes>) {
    return this.composition.listWholes(params.project);
  }

  @Route(listUses)
  uses(@Call(listUses) { params, query }: Input<typeof listUses>) {
    return this.composition.listUses(params.project, query.path.split(',').filter(Boolean));
  }
}
