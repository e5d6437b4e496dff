import { getDrawing, listDrawings } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { DrawingsService } from './drawings.service.js';

@Controller()
export class DrawingsController {
  constructor(@Inject(DrawingsService) private readonly drawings: DrawingsService) {}

  @Route(listDrawings)
  list(@Call(listDrawings) { params }: Input<typeof listDrawings>) {
    return this.drawings.list(params.project);
  }

  @Route(getDrawing)
  get(@Call(getDrawing) { params }: Input<typeof getDrawing>) {
    return this.drawings.get(params.project, params.drawing);
  }
}
