import { getDrawing, keepDrawing, listDrawings, placeDrawing, planDrawing, setBoxes } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { MadeDrawingsService } from './made-drawings.service.js';
import { DrawingsService } from './drawings.service.js';

@Controller()
export class DrawingsController {
  constructor(
    @Inject(DrawingsService) private readonly drawings: DrawingsService,
    @Inject(MadeDrawingsService) private readonly made: MadeDrawingsService,
  ) {}

  @Route(listDrawings)
  list(@Call(listDrawings) { params, query }: Input<typeof listDrawings>) {
    return this.drawings.list(params.project, query.lens);
  }

  @Route(getDrawing)
  get(@Call(getDrawing) { params }: Input<typeof getDrawing>) {
    return this.drawings.get(params.project, params.drawing);
  }

  @Route(setBoxes)
  setBoxes(@Call(setBoxes) { params, body, person }: Input<typeof setBoxes>) {
    return this.drawings.setBoxes(params.project, person, params.drawing, body);
  }

  @Route(planDrawing)
  plan(@Call(planDrawing) { params, body }: Input<typeof planDrawing>) {
    return this.made.plan(params.project, body);
  }

  @Route(keepDrawing)
  keep(@Call(keepDrawing) { params, body, person }: Input<typeof keepDrawing>) {
    return this.made.keep(params.project, person, body);
  }

  @Route(placeDrawing)
  place(@Call(placeDrawing) { params, body, person }: Input<typeof placeDrawing>) {
    return this.made.place(params.project, person, params.drawing, body);
  }
}
