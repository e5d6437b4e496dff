import { type Baseline, CoombError } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { BaselineValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { asIso, LedgerService } from '../changes/ledger.service.js';

/** Names of moments of a project. What stood then is read by the number, as anything is. */
@Injectable()
export class BaselinesService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async list(project: string): Promise<Baseline[]> {
    const rows = await this.rows.findAll(project, 'baseline');
    return rows.sort((a, b) => b.seq - a.seq || Date.parse(b.at) - Date.parse(a.at)).map(describe);
  }

  /** Refuses a name that another moment has, and a change that is not there. */
  async create(project: string, person: string, { name, note, seq }: { name: string; note: string; seq?: number | undefined }): Promise<Baseline> {
    let row!: BaselineValue;
    await this.ledger.change(project, async (state) => {
      if (seq !== undefined && seq > state.seq) throw new CoombError('not-found', `There is no change ${seq} in this project; the last is ${state.seq}.`);
      const taken = (await this.rows.findAll(project, 'baseline')).find((one) => one.name.toLowerCase() === name.toLowerCase());
      if (taken) throw new CoombError('input-invalid', `"${taken.name}" is the name of change ${taken.seq} already. Choose another name.`);
      const tracked = { id: this.clock.newId(), projectId: project, revision: 1, withdrawn: false };
      row = { ...tracked, name, note, seq: seq ?? state.seq, person, at: this.clock.now().toISOString() };
      return { person, action: `Name change ${row.seq} "${name}"`, changes: [{ entity: 'baseline', before: null, after: row }] };
    });
    return describe(row);
  }

  async withdraw(project: string, person: string, id: string): Promise<{ seq: number }> {
    const { seq } = await this.ledger.change(project, async () => {
      const before = (await this.rows.findRows(project, 'baseline', [id])).get(id);
      if (before?.projectId !== project || before.withdrawn) throw new CoombError('not-found', 'This baseline is not there any more.');
      const after = { ...before, withdrawn: true, revision: before.revision + 1 };
      return { person, action: `Take back the name "${before.name}" of change ${before.seq}`, changes: [{ entity: 'baseline', before, after }] };
    });
    return { seq };
  }
}

function describe({ id, name, note, seq, person, at }: BaselineValue): Baseline {
  return { id, name, note, seq, person, at: asIso(at) };
}
