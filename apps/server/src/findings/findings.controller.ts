import { listFindings, mendFindings, trendFindings, waiveFindings } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { FindingTrend } from './finding-trend.js';
import { FindingsService } from './findings.service.js';

@Controller()
export class FindingsController {
  constructor(
    @Inject(FindingsService) private readonly findings: FindingsService,
    @Inject(FindingTrend) private readonly trends: FindingTrend,
  ) {}

  @Route(trendFindings)
  trend(@Call(trendFindings) { params, query }: Input<typeof trendFindings>) {
    return this.trends.read(params.project, query.points, query.lens);
  }

  @Route(listFindings)
  list(@Call(listFindings) { params, query }: Input<typeof listFindings>) {
    return this.findings.list(params.project, query);
  }

  @Route(waiveFindings)
  waive(@Call(waiveFindings) { params, body, person }: Input<typeof waiveFindings>) {
    return this.findings.waive(params.project, person, body);
  }

  @Route(mendFindings)
  mend(@Call(mendFindings) { params, body, person }: Input<typeof mendFindings>) {
    return this.findings.mend(params.project, person, body.findings);
  }
}
