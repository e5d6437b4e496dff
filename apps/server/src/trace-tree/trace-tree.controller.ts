import { growTrace } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { TraceTreeService } from './trace-tree.service.js';

@Controller()
export class TraceTreeController {
  constructor(@Inject(TraceTreeService) private readonly trees: TraceTreeService) {}

  @Route(growTrace)
  grow(@Call(growTrace) { params, body }: Input<typeof growTrace>) {
    return this.trees.grow(params.project, body);
  }
}
