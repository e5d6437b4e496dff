import { pipeline } from 'node:stream/promises';
import { getBackup, getUpkeep } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Route } from '../http/route.js';
import { CopiesService } from './copies.service.js';

@Controller()
export class BackupController {
  constructor(@Inject(CopiesService) private readonly copies: CopiesService) {}

  @Route(getUpkeep)
  upkeep() {
    return this.copies.describe();
  }

  @Route(getBackup)
  async backup(@Res() response: Response) {
    const { stream, name, done } = await this.copies.open();
    response.setHeader('Content-Type', 'application/gzip');
    response.setHeader('Content-Disposition', `attachment; filename="${name}"`);
    try {
      await pipeline(stream, response);
    } catch {
      // Whoever asked went away; there is nobody to tell.
    } finally {
      done();
    }
  }
}
