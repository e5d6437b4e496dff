import { live, sayWhere } from '@coomb/contract';
import { Controller, Inject, type MessageEvent, SetMetadata, Sse } from '@nestjs/common';
import { interval, map, merge, type Observable } from 'rxjs';
import { Call, ENDPOINT_NAME, type Input, Route } from '../http/route.js';
import { ProjectStates } from '../project-state/project-states.js';
import { LiveService } from '../live/live.service.js';

const HEARTBEAT = 25_000;

@Controller()
export class LiveController {
  constructor(
    @Inject(LiveService) private readonly live: LiveService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

  @Sse(live.path)
  @SetMetadata(ENDPOINT_NAME, 'live')
  async stream(@Call(live) { params, query }: Input<typeof live>): Promise<Observable<MessageEvent>> {
    const state = await this.states.get(params.project);
    const events = this.live
      .listen(params.project, { person: query.person ?? '', window: query.window }, state)
      .pipe(map((event): MessageEvent => ({ data: event })));
    return merge(events, interval(HEARTBEAT).pipe(map((): MessageEvent => ({ type: 'beat', data: '' }))));
  }

  @Route(sayWhere)
  async where(@Call(sayWhere) { params, body }: Input<typeof sayWhere>) {
    this.live.sayWhere(params.project, body);
    return { seq: (await this.states.get(params.project)).seq };
  }
}
