import { queryRegister, saveRegister, writeCells } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { pipeline } from 'node:stream/promises';
import { Call, type Input, Route } from '../http/route.js';
import { restOf, writeCsvRows } from '../tables/rows.js';
import { writeWorkbook } from '../tables/write-workbook.js';
import { CellsService } from './cells.service.js';
import { RegistersService } from './registers.service.js';

@Controller()
export class RegistersController {
  constructor(
    @Inject(RegistersService) private readonly registers: RegistersService,
    @Inject(CellsService) private readonly cells: CellsService,
  ) {}

  @Route(queryRegister)
  query(@Call(queryRegister) { params, body }: Input<typeof queryRegister>) {
    return this.registers.query(params.project, body);
  }

  @Route(writeCells)
  write(@Call(writeCells) { params, body, person }: Input<typeof writeCells>) {
    return this.cells.write(params.project, person, body);
  }

  @Route(saveRegister)
  async save(@Call(saveRegister) { params, body }: Input<typeof saveRegister>, @Res() response: Response) {
    const rows = this.registers.rowsOf(params.project, body);
    // The first row tells whether there is such a project, before a file is begun.
    const head = await rows.next();
    const all = restOf(head, rows);
    response.status(200);
    response.setHeader('Content-Type', 'application/octet-stream');
    response.setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${body.name}.${params.format}`)}`);
    const pieces = params.format === 'xlsx' ? writeWorkbook(body.name, all) : writeCsvRows(all);
    await pipeline(pieces, response).catch((error) => response.destroy(error));
  }
}
