import { queryRegister, saveRegister, writeCells } from '@coomb/contract';
import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { addressOf } from '../http/address-of.js';
import { Call, type Input, Route } from '../http/route.js';
import { writeCsvRows } from '../tables/rows.js';
import { sendTable } from '../tables/send-table.js';
import { type TableCell, type TableColumn, writeTable } from '../tables/write-table.js';
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
  async save(@Call(saveRegister) { params, body }: Input<typeof saveRegister>, @Req() request: Request, @Res() response: Response) {
    const { columns, rows, count } = await this.registers.tableOf(params.project, body, `${addressOf(request)}/p/${params.project}`);
    const pieces = params.format === 'xlsx' ? writeTable(body.name, columns, rows, count) : writeCsvRows(asWords(columns, rows));
    await sendTable(response, body.name, params.format, pieces);
  }
}

async function* asWords(columns: readonly TableColumn[], rows: AsyncIterable<TableCell[]>): AsyncGenerator<string[]> {
  yield columns.map(({ name }) => name);
  for await (const cells of rows) yield cells.map(sayCell);
}

const sayCell = (cell: TableCell): string => {
  if (cell === null) return '';
  if (cell instanceof Date) return cell.getTime() % 86_400_000 === 0 ? cell.toISOString().slice(0, 10) : cell.toISOString();
  return typeof cell === 'object' ? cell.text : String(cell);
};
