import { createSet, editCollection, editSet, mergeSets, planMerge, planSet, withdrawCollection } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { SetsService } from './sets.service.js';

@Controller()
export class SetsController {
  constructor(@Inject(SetsService) private readonly sets: SetsService) {}

  @Route(planSet)
  plan(@Call(planSet) { params, body }: Input<typeof planSet>) {
    return this.sets.plan(params.project, body);
  }

  @Route(createSet)
  create(@Call(createSet) { params, body, person }: Input<typeof createSet>) {
    return this.sets.create(params.project, person, body);
  }

  @Route(editSet)
  edit(@Call(editSet) { params, body, person }: Input<typeof editSet>) {
    return this.sets.edit(params.project, person, params.set, body);
  }

  @Route(planMerge)
  planMerge(@Call(planMerge) { params, body }: Input<typeof planMerge>) {
    return this.sets.planMerge(params.project, params.set, body.into);
  }

  @Route(mergeSets)
  merge(@Call(mergeSets) { params, body, person }: Input<typeof mergeSets>) {
    return this.sets.merge(params.project, person, params.set, body.into);
  }

  @Route(editCollection)
  editCollection(@Call(editCollection) { params, body, person }: Input<typeof editCollection>) {
    return this.sets.editCollection(params.project, person, params.collection, body);
  }

  @Route(withdrawCollection)
  withdrawCollection(@Call(withdrawCollection) { params, person }: Input<typeof withdrawCollection>) {
    return this.sets.withdrawCollection(params.project, person, params.collection);
  }
}
