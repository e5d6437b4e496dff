import { findItems } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { FindService } from './find.service.js';

@Controller()
export class FindController {
  constructor(@Inject(FindService) private readonly finding: FindService) {}

  @Route(findItems)
  find(@Call(findItems) { params, query }: Input<typeof findItems>) {
    return this.finding.find(params.project, query.words, query.most, query.lens);
  }
}
