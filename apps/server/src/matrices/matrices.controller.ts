import { readCells, readMatrix, saveMatrix } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { sendTable } from '../tables/send-table.js';
import { MatricesService } from './matrices.service.js';
import { writeMatrixBook, writeMatrixCsv } from './write-matrix.js';

@Controller()
export class MatricesController {
  constructor(@Inject(MatricesService) private readonly matrices: MatricesService) {}

  @Route(readMatrix)
  read(@Call(readMatrix) { params, body }: Input<typeof readMatrix>, @Res({ passthrough: true }) response: Response) {
    // Its entries are packed as they are: to pack a million of them once more takes longer than to send them.
    response.setHeader('Cache-Control', 'no-store, no-transform');
    return this.matrices.read(params.project, body);
  }

  @Route(readCells)
  readCells(@Call(readCells) { params, body }: Input<typeof readCells>) {
    return this.matrices.readCells(params.project, body);
  }

  @Route(saveMatrix)
  save(@Call(saveMatrix) { params, body }: Input<typeof saveMatrix>, @Res() response: Response) {
    return sendTable(response, body.name, params.format, params.format === 'xlsx' ? writeMatrixBook(body) : writeMatrixCsv(body));
  }
}
