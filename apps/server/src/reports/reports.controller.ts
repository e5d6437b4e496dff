import { createReport, getReport, getReportDocument, getReportPage, listReports } from '@coomb/contract';
import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { addressOf } from '../http/address-of.js';
import { Call, type Input, Route } from '../http/route.js';
import { buildReportDocument } from './report-document.js';
import { buildReportPage } from './report-page.js';
import { ReportsService } from './reports.service.js';

@Controller()
export class ReportsController {
  constructor(@Inject(ReportsService) private readonly reports: ReportsService) {}

  @Route(listReports)
  list(@Call(listReports) { params }: Input<typeof listReports>) {
    return this.reports.list(params.project);
  }

  @Route(createReport)
  create(@Call(createReport) { params, body, person }: Input<typeof createReport>) {
    return this.reports.create(params.project, person, body);
  }

  @Route(getReport)
  get(@Call(getReport) { params }: Input<typeof getReport>) {
    return this.reports.get(params.project, params.report);
  }

  @Route(getReportPage)
  async page(@Call(getReportPage) { params }: Input<typeof getReportPage>, @Req() request: Request, @Res() response: Response) {
    const report = await this.reports.get(params.project, params.report);
    response.type('html').send(buildReportPage(report.number, report.body, `${addressOf(request)}/p/${params.project}`));
  }

  @Route(getReportDocument)
  async document(@Call(getReportDocument) { params }: Input<typeof getReportDocument>, @Res() response: Response) {
    const report = await this.reports.get(params.project, params.report);
    const bytes = await buildReportDocument(report.number, report.body);
    response.setHeader('Content-Type', getReportDocument.produces!);
    response.setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${report.body.project} report ${report.number}.docx`)}`);
    response.end(bytes);
  }
}
