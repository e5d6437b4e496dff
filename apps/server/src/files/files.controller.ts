import { getFile, getSourceFile } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { FilesRepo } from './files.repo.js';
import { sendFile } from '../http/send-file.js';

@Controller()
export class FilesController {
  constructor(@Inject(FilesRepo) private readonly repo: FilesRepo) {}

  @Route(getFile)
  async getFile(@Call(getFile) { params }: Input<typeof getFile>, @Res() response: Response) {
    sendFile(response, await this.repo.getFile(params.project, params.file));
  }

  @Route(getSourceFile)
  async getSourceFile(@Call(getSourceFile) { params }: Input<typeof getSourceFile>, @Res() response: Response) {
    sendFile(response, await this.repo.getOriginal(params.project, params.source));
  }
}
