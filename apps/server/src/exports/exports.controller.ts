import { exportCollection, getExportRecipe } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { ExportsService } from './exports.service.js';

@Controller()
export class ExportsController {
  constructor(@Inject(ExportsService) private readonly exports: ExportsService) {}

  @Route(exportCollection)
  async export(@Call(exportCollection) { params, query }: Input<typeof exportCollection>, @Res() response: Response) {
    const { name, bytes } = await this.exports.export(params.project, params.collection, params.format, query.items);
    response.setHeader('Content-Type', 'application/octet-stream');
    response.setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);
    response.end(bytes);
  }

  @Route(getExportRecipe)
  recipe(@Call(getExportRecipe) { params, query }: Input<typeof getExportRecipe>) {
    return this.exports.getRecipe(params.project, params.collection, params.format, query.items);
  }
}
