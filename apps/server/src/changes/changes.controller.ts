import { getBatch, getUndo, listChanges, redo, undo } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { LedgerService } from './ledger.service.js';

@Controller()
export class LedgerController {
  constructor(@Inject(LedgerService) private readonly ledger: LedgerService) {}

  @Route(listChanges)
  list(@Call(listChanges) { params, query }: Input<typeof listChanges>) {
    return this.ledger.list(params.project, query.before, query.most);
  }

  @Route(getBatch)
  getBatch(@Call(getBatch) { params, query }: Input<typeof getBatch>) {
    return this.ledger.getBatch(params.project, params.seq, query.offset, query.most);
  }

  @Route(getUndo)
  findUndo(@Call(getUndo) { params, person }: Input<typeof getUndo>) {
    return this.ledger.findUndo(params.project, person);
  }

  @Route(undo)
  undo(@Call(undo) { params, person }: Input<typeof undo>) {
    return this.ledger.undo(params.project, person);
  }

  @Route(redo)
  redo(@Call(redo) { params, person }: Input<typeof redo>) {
    return this.ledger.redo(params.project, person);
  }
}
