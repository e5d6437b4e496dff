import {
  changeItems,
  createItem,
  editItem,
  getHistory,
  getItem,
  getOutline,
  getOutlineSince,
  getTrace,
  joinItems,
  moveItem,
  readCollection,
  restoreItems,
  setKinds,
  splitItem,
  withdrawItems,
} from '@coomb/contract';
import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { presentMoment } from '../http/caller.js';
import { OutlineKeeper } from './outline-keeper.js';
import { KeptAnswers } from '../project-state/kept-answers.js';
import { ItemReadingService } from './item-reading.service.js';
import { ItemsService } from './items.service.js';
import { buildOutlineReply } from './outline.js';
import { ChangeItemsService } from './change-items.service.js';
import { ReshapeService } from './reshape.service.js';

@Controller()
export class ItemsController {
  constructor(
    @Inject(ItemsService) private readonly items: ItemsService,
    @Inject(ItemReadingService) private readonly reading: ItemReadingService,
    @Inject(KeptAnswers) private readonly kept: KeptAnswers,
    @Inject(ChangeItemsService) private readonly changing: ChangeItemsService,
    @Inject(ReshapeService) private readonly reshaping: ReshapeService,
    @Inject(OutlineKeeper) private readonly outlines: OutlineKeeper,
  ) {}

  @Route(getOutline)
  outline(@Call(getOutline) { params }: Input<typeof getOutline>, @Req() request: Request, @Res() response: Response) {
    return this.kept.send(request, response, params.project, 'outline', (state) => {
      if (presentMoment() === undefined) this.outlines.noteTold(state);
      return buildOutlineReply(state);
    });
  }

  @Route(getOutlineSince)
  outlineSince(@Call(getOutlineSince) { params, query }: Input<typeof getOutlineSince>) {
    return this.outlines.tellSince(params.project, query);
  }

  @Route(readCollection)
  read(@Call(readCollection) { params, query }: Input<typeof readCollection>) {
    return this.reading.readCollection(params.project, params.collection, query.offset, query.limit);
  }

  @Route(createItem)
  create(@Call(createItem) { params, body, person }: Input<typeof createItem>) {
    return this.items.create(params.project, person, body);
  }

  @Route(changeItems)
  changeMany(@Call(changeItems) { params, body, person }: Input<typeof changeItems>) {
    return this.changing.change(params.project, person, body);
  }

  @Route(withdrawItems)
  withdraw(@Call(withdrawItems) { params, body, person }: Input<typeof withdrawItems>) {
    return this.items.setWithdrawn(params.project, person, body.items, true);
  }

  @Route(restoreItems)
  restore(@Call(restoreItems) { params, body, person }: Input<typeof restoreItems>) {
    return this.items.setWithdrawn(params.project, person, body.items, false);
  }

  @Route(getItem)
  get(@Call(getItem) { params, query }: Input<typeof getItem>) {
    return this.reading.getSheet(params.project, params.item, query.use ? query.use.split(',') : undefined);
  }

  @Route(editItem)
  edit(@Call(editItem) { params, body, person }: Input<typeof editItem>) {
    return this.items.edit(params.project, person, params.item, body);
  }

  @Route(moveItem)
  move(@Call(moveItem) { params, body, person }: Input<typeof moveItem>) {
    return this.items.move(params.project, person, params.item, body.parent, body.after);
  }

  @Route(splitItem)
  split(@Call(splitItem) { params, body, person }: Input<typeof splitItem>) {
    return this.reshaping.split(params.project, person, params.item, body);
  }

  @Route(joinItems)
  join(@Call(joinItems) { params, body, person }: Input<typeof joinItems>) {
    return this.reshaping.join(params.project, person, params.item, body);
  }

  @Route(setKinds)
  setKinds(@Call(setKinds) { params, body, person }: Input<typeof setKinds>) {
    return this.reshaping.setKinds(params.project, person, body);
  }

  @Route(getHistory)
  history(@Call(getHistory) { params }: Input<typeof getHistory>) {
    return this.reading.getHistory(params.project, params.item);
  }

  @Route(getTrace)
  trace(@Call(getTrace) { params }: Input<typeof getTrace>) {
    return this.reading.getTrace(params.project, params.item);
  }
}
