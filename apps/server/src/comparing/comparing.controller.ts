import { compareMoments, saveComparison } from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { writeCsvRows } from '../tables/rows.js';
import { sendTable } from '../tables/send-table.js';
import { writeWorkbook } from '../tables/write-workbook.js';
import { ComparingService } from './comparing.service.js';
import { comparisonDocument, comparisonTable } from './write-comparison.js';

@Controller()
export class ComparingController {
  constructor(@Inject(ComparingService) private readonly comparing: ComparingService) {}

  @Route(compareMoments)
  compare(@Call(compareMoments) { params, query: { offset, most, ...asked } }: Input<typeof compareMoments>) {
    return this.comparing.compare(params.project, asked, offset, most);
  }

  @Route(saveComparison)
  async save(@Call(saveComparison) { params, body }: Input<typeof saveComparison>, @Res() response: Response) {
    const found = await this.comparing.compare(params.project, body, 0, Number.MAX_SAFE_INTEGER);
    const name = `Changes ${found.from.seq} to ${found.to.seq}`;
    const { format } = params;
    if (format === 'docx') {
      const document = await comparisonDocument(name, found);
      return sendTable(
        response,
        name,
        format,
        (async function* () {
          yield document;
        })(),
      );
    }
    await sendTable(response, name, format, format === 'xlsx' ? writeWorkbook(name, comparisonTable(found)) : writeCsvRows(comparisonTable(found)));
  }
}
