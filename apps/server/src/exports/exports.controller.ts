import { pipeline } from 'node:stream/promises';
import { exportCollection, exportItems, getExportRecipe, getItemsRecipe, tryExport } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { whileWaiting } from '../http/while-waiting.js';
import { ExportsService } from './exports.service.js';
import type { GrowingFile } from './growing-file.js';

@Controller()
export class ExportsController {
  constructor(@Inject(ExportsService) private readonly exports: ExportsService) {}

  @Route(exportCollection)
  async export(@Call(exportCollection) { params, query }: Input<typeof exportCollection>, @Res() response: Response) {
    await send(response, await this.exports.export(params.project, { collection: params.collection, ...query }, params.format, whileWaiting(response)));
  }

  @Route(getExportRecipe)
  recipe(@Call(getExportRecipe) { params, query }: Input<typeof getExportRecipe>, @Res({ passthrough: true }) response: Response) {
    return this.exports.getRecipe(params.project, { collection: params.collection, ...query }, params.format, whileWaiting(response));
  }

  @Route(exportItems)
  async exportItems(@Call(exportItems) { params, body }: Input<typeof exportItems>, @Res() response: Response) {
    await send(response, await this.exports.export(params.project, body, params.format, whileWaiting(response)));
  }

  @Route(getItemsRecipe)
  itemsRecipe(@Call(getItemsRecipe) { params, body }: Input<typeof getItemsRecipe>, @Res({ passthrough: true }) response: Response) {
    return this.exports.getRecipe(params.project, body, params.format, whileWaiting(response));
  }

  @Route(tryExport)
  try(@Call(tryExport) { params, body }: Input<typeof tryExport>, @Res({ passthrough: true }) response: Response) {
    return this.exports.try(params.project, body, params.format, whileWaiting(response));
  }
}

/** As far as it is written, and the rest as it comes. Half a file breaks the connection, so that nobody takes it for a whole one. */
async function send(response: Response, file: GrowingFile): Promise<void> {
  const name = await file.name();
  response.status(200);
  response.setHeader('Content-Type', 'application/octet-stream');
  response.setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);
  // A person who went away is nobody's fault.
  await pipeline(file.read(), response).catch((error) => response.destroy(error));
}
