import { readImpact } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { ImpactService } from './impact.service.js';

@Controller()
export class ImpactController {
  constructor(@Inject(ImpactService) private readonly impact: ImpactService) {}

  @Route(readImpact)
  read(@Call(readImpact) { params, body }: Input<typeof readImpact>) {
    return this.impact.read(params.project, body);
  }
}
