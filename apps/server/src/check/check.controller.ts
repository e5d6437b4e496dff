import { createWaiver, explainCoverage, getReadiness, getRealisation, openFigure, trendFigure, withdrawWaiver } from '@coomb/contract';
import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { KeptAnswers } from '../project-state/kept-answers.js';
import { Call, type Input, Route } from '../http/route.js';
import { CheckService } from './check.service.js';
import { buildRealisation } from './realisation.js';
import { buildReadiness } from './readiness.js';

@Controller()
export class CheckController {
  constructor(
    @Inject(CheckService) private readonly check: CheckService,
    @Inject(KeptAnswers) private readonly kept: KeptAnswers,
  ) {}

  @Route(getReadiness)
  async readiness(@Call(getReadiness) { params, query }: Input<typeof getReadiness>, @Req() request: Request, @Res() response: Response) {
    if (query.lens !== undefined) {
      response.json(await this.check.readinessThrough(params.project, query.lens));
      return;
    }
    return this.kept.send(request, response, params.project, 'readiness', (state) => buildReadiness(state));
  }

  @Route(getRealisation)
  async realisation(@Call(getRealisation) { params, query }: Input<typeof getRealisation>, @Req() request: Request, @Res() response: Response) {
    if (query.lens !== undefined) {
      response.json(await this.check.realisationThrough(params.project, query.lens));
      return;
    }
    return this.kept.send(request, response, params.project, 'realisation', (state) => buildRealisation(state));
  }

  @Route(openFigure)
  figure(@Call(openFigure) { params, query }: Input<typeof openFigure>) {
    return this.check.openFigure(params.project, params.figure, query);
  }

  @Route(trendFigure)
  trend(@Call(trendFigure) { params, query }: Input<typeof trendFigure>) {
    return this.check.trend(params.project, params.figure, query, query.points);
  }

  @Route(explainCoverage)
  explain(@Call(explainCoverage) { params }: Input<typeof explainCoverage>) {
    return this.check.explain(params.project, params.rule, params.item);
  }

  @Route(createWaiver)
  waive(@Call(createWaiver) { params, body, person }: Input<typeof createWaiver>) {
    return this.check.createWaiver(params.project, person, body);
  }

  @Route(withdrawWaiver)
  withdraw(@Call(withdrawWaiver) { params, person }: Input<typeof withdrawWaiver>) {
    return this.check.withdrawWaiver(params.project, person, params.waiver);
  }
}
