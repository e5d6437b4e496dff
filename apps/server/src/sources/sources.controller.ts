import { clipPassage, keepSource, readSource, removeClipping } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { ClipService } from './clip.service.js';
import { SourcesService } from './sources.service.js';

@Controller()
export class SourcesController {
  constructor(
    @Inject(SourcesService) private readonly sources: SourcesService,
    @Inject(ClipService) private readonly clips: ClipService,
  ) {}

  @Route(readSource)
  read(@Call(readSource) { params }: Input<typeof readSource>) {
    return this.sources.read(params.project, params.source);
  }

  @Route(clipPassage)
  clip(@Call(clipPassage) { params, body, person }: Input<typeof clipPassage>) {
    return this.clips.clip(params.project, person, params.source, body);
  }

  @Route(removeClipping)
  remove(@Call(removeClipping) { params, person }: Input<typeof removeClipping>) {
    return this.clips.remove(params.project, person, params.clipping);
  }

  @Route(keepSource)
  keep(@Call(keepSource) { params, body, person }: Input<typeof keepSource>) {
    return this.sources.keep(params.project, person, params.tray, body.again);
  }
}
