import { keepView, listSavedViews, renameView, withdrawView } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { SavedViewsService } from './saved-views.service.js';

@Controller()
export class SavedViewsController {
  constructor(@Inject(SavedViewsService) private readonly views: SavedViewsService) {}

  @Route(listSavedViews)
  list(@Call(listSavedViews) { params, query }: Input<typeof listSavedViews>) {
    return this.views.list(params.project, query.sort);
  }

  @Route(keepView)
  keep(@Call(keepView) { params, body, person }: Input<typeof keepView>) {
    return this.views.keep(params.project, person, body);
  }

  @Route(renameView)
  rename(@Call(renameView) { params, body, person }: Input<typeof renameView>) {
    return this.views.rename(params.project, person, params.view, body.name);
  }

  @Route(withdrawView)
  withdraw(@Call(withdrawView) { params, person }: Input<typeof withdrawView>) {
    return this.views.withdraw(params.project, person, params.view);
  }
}
