import { queryRegister, saveRegister, writeCells } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { writeCsvRows } from '../tables/rows.js';
import { sendTable } from '../tables/send-table.js';
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
    await sendTable(response, body.name, params.format, params.format === 'xlsx' ? writeWorkbook(body.name, rows) : writeCsvRows(rows));
  }
}
