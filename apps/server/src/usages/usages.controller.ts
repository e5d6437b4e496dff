import { listUsages, listUsed, setInUsage } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { UsagesService } from './usages.service.js';

@Controller()
export class UsagesController {
  constructor(@Inject(UsagesService) private readonly usages: UsagesService) {}

  @Route(listUsages)
  list(@Call(listUsages) { params }: Input<typeof listUsages>) {
    return this.usages.list(params.project, params.item);
  }

  @Route(listUsed)
  listUsed(@Call(listUsed) { params }: Input<typeof listUsed>) {
    return this.usages.listUsed(params.project);
  }

  @Route(setInUsage)
  set(@Call(setInUsage) { params, body, person }: Input<typeof setInUsage>) {
    return this.usages.set(params.project, person, body);
  }
}
