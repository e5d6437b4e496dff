import { makeGroups, orderStructure, proposeStructure, readLinkNumbers } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { whileWaiting } from '../http/while-waiting.js';
import { LinkNumbersService } from './link-numbers.service.js';
import { MadeGroupsService } from './made-groups.service.js';
import { StructuresService } from './structures.service.js';

@Controller()
export class StructuresController {
  constructor(
    @Inject(StructuresService) private readonly structures: StructuresService,
    @Inject(MadeGroupsService) private readonly made: MadeGroupsService,
    @Inject(LinkNumbersService) private readonly numbers: LinkNumbersService,
  ) {}

  @Route(orderStructure)
  order(@Call(orderStructure) { body }: Input<typeof orderStructure>, @Res({ passthrough: true }) response: Response) {
    return this.structures.order(body, whileWaiting(response));
  }

  @Route(makeGroups)
  make(@Call(makeGroups) { params, body, person }: Input<typeof makeGroups>) {
    return this.made.make(params.project, person, body);
  }

  @Route(readLinkNumbers)
  readNumbers(@Call(readLinkNumbers) { params }: Input<typeof readLinkNumbers>) {
    return this.numbers.read(params.project, params.field);
  }

  @Route(proposeStructure)
  propose(@Call(proposeStructure) { body }: Input<typeof proposeStructure>, @Res({ passthrough: true }) response: Response) {
    return this.structures.propose(body, whileWaiting(response));
  }
}
