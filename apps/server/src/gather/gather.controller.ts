import { checkFile, compareFile, importFile } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { ImportAgainService } from './import-again/import-again.service.js';
import { ImportService } from './import.service.js';

/** From a file in the tray to items: checked, compared with what came before, imported. */
@Controller()
export class GatherController {
  constructor(
    @Inject(ImportService) private readonly imports: ImportService,
    @Inject(ImportAgainService) private readonly again: ImportAgainService,
  ) {}

  @Route(compareFile)
  compare(@Call(compareFile) { params, body, person }: Input<typeof compareFile>) {
    return this.again.compare(params.project, person, params.tray, body);
  }

  @Route(checkFile)
  check(@Call(checkFile) { params, body, person }: Input<typeof checkFile>) {
    return this.imports.check(params.project, person, params.tray, body);
  }

  @Route(importFile)
  async import(@Call(importFile) { params, body, person }: Input<typeof importFile>) {
    return { job: await this.imports.start(params.project, person, params.tray, body) };
  }
}
