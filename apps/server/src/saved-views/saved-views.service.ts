import { CoombError, readSavedBody, type SavedView, savedVersionOf, savedViewSortOf, savedViewSorts } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { asIso, LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { SavedViewValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';

/** Views that people keep under names: one sort of thing in the ledger, whatever they are views of. */
@Injectable()
export class SavedViewsService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async list(project: string, sort: string | undefined): Promise<SavedView[]> {
    const rows = (await this.rows.findAll(project, 'savedView')).filter((row) => sort === undefined || row.sort === sort);
    return rows.sort((a, b) => a.name.localeCompare(b.name, 'en-GB')).map(describe);
  }

  /** Refuses a sort that is not there, and what its schema does not take. */
  async keep(project: string, person: string, wish: { sort: string; name: string; body: Record<string, unknown> }): Promise<SavedView> {
    const sort = savedViewSortOf(wish.sort);
    if (!sort)
      throw new CoombError('input-invalid', `There are no views of the sort "${wish.sort}"; there are ${savedViewSorts.map((one) => one.sort).join(', ')}.`);
    const parsed = sort.schema.safeParse(wish.body);
    if (!parsed.success) throw new CoombError('input-invalid', `body.${parsed.error.issues[0]!.path.join('.')}: ${parsed.error.issues[0]!.message}`);
    let row!: SavedViewValue;
    await this.ledger.change(project, async () => {
      const before = await this.findNamed(project, wish.sort, wish.name);
      const said = { name: wish.name, version: savedVersionOf(sort), body: parsed.data as Record<string, unknown>, person, at: this.clock.now().toISOString() };
      row = before
        ? { ...before, ...said, revision: before.revision + 1 }
        : { id: this.clock.newId(), projectId: project, revision: 1, withdrawn: false, sort: wish.sort, ...said };
      return { person, action: `Keep the ${sort.label.toLowerCase()} "${wish.name}"`, changes: [{ entity: 'savedView', before: before ?? null, after: row }] };
    });
    return describe(row);
  }

  async rename(project: string, person: string, id: string, name: string): Promise<SavedView> {
    let row!: SavedViewValue;
    await this.ledger.change(project, async () => {
      const before = await this.find(project, id);
      const taken = await this.findNamed(project, before.sort, name);
      if (taken && taken.id !== id) throw new CoombError('input-invalid', `"${taken.name}" is kept already. Choose another name.`);
      row = { ...before, name, revision: before.revision + 1 };
      return { person, action: `Call the kept view "${before.name}" "${name}"`, changes: [{ entity: 'savedView', before, after: row }] };
    });
    return describe(row);
  }

  async withdraw(project: string, person: string, id: string): Promise<{ seq: number }> {
    const { seq } = await this.ledger.change(project, async () => {
      const before = await this.find(project, id);
      const after = { ...before, withdrawn: true, revision: before.revision + 1 };
      return { person, action: `Keep the view "${before.name}" no more`, changes: [{ entity: 'savedView', before, after }] };
    });
    return { seq };
  }

  private async find(project: string, id: string): Promise<SavedViewValue> {
    const row = (await this.rows.findRows(project, 'savedView', [id])).get(id);
    if (row?.projectId !== project || row.withdrawn) throw new CoombError('not-found', 'This view is not kept any more.');
    return row;
  }

  private async findNamed(project: string, sort: string, name: string): Promise<SavedViewValue | undefined> {
    return (await this.rows.findAll(project, 'savedView')).find((row) => row.sort === sort && row.name.toLowerCase() === name.toLowerCase());
  }
}

const describe = (row: SavedViewValue): SavedView => ({
  id: row.id,
  sort: row.sort,
  name: row.name,
  body: readSavedBody(row) ?? null,
  person: row.person,
  at: asIso(row.at),
});
