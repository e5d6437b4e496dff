import type { FieldValue } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import { presentMoment } from '../http/caller.js';
import { DATABASE } from '../http/tokens.js';
import type { ItemValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { FollowedFacts } from '../project-state/followed-facts.js';
import type { ProjectState } from '../project-state/project-state.js';

type Told = Pick<ItemValue, 'id' | 'fields' | 'changedBy'> & { createdAt: string | number; changedAt: string | number };

const millis = (time: string | number) => (typeof time === 'number' ? time : Date.parse(time));

/** What items say in their fields, and when and by whom they came to; by node. It counts in no state and no rule of coverage. */
export class ItemFacts {
  readonly fields: Record<string, FieldValue>[] = [];
  readonly createdAt: number[] = [];
  readonly changedAt: number[] = [];
  readonly changedBy: string[] = [];
  /** Persons are said by many: each name is kept once. */
  private readonly persons = new Map<string, string>();

  set(node: number, { fields, createdAt, changedAt, changedBy }: Told): void {
    this.fields[node] = fields;
    this.createdAt[node] = millis(createdAt);
    this.changedAt[node] = millis(changedAt);
    const known = this.persons.get(changedBy);
    if (known === undefined) this.persons.set(changedBy, changedBy);
    this.changedBy[node] = known ?? changedBy;
  }
}

/** Items that are read at once. */
const BLOCK = 20_000;
/** Stands in no JSON: it joins values of many items. */
const JOIN = '\u0001';

/** Reads what a project's items say in their fields once, and follows every change of it from then on. */
@Injectable()
export class ItemFactsKeeper {
  private readonly facts = new FollowedFacts<'item', Told, ItemFacts>({
    entity: 'item',
    begin: (state) => {
      const facts = new ItemFacts();
      const take = (row: Told) => {
        const node = state.nodeOf.get(row.id);
        if (node !== undefined) facts.set(node, row);
      };
      return { facts, take };
    },
    read: (state) => (presentMoment() === undefined ? this.readPacked(state) : this.readPast(state)),
  });

  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  find(state: ProjectState): Promise<ItemFacts> {
    return this.facts.find(state);
  }

  private async readPast(state: ProjectState): Promise<Iterable<Told>> {
    const ids = state.items.map(({ id }) => id);
    return (await this.rows.findRows(state.id, 'item', ids)).values();
  }

  /** As few long texts: rows of 50,000 items one by one take seconds. */
  private async readPacked(state: ProjectState): Promise<Told[]> {
    const told: Told[] = [];
    for (let from = 0; from < state.items.length; from += BLOCK) {
      const { rows } = await this.db.execute<Record<'ids' | 'fields' | 'created' | 'changed' | 'persons', string | null>>(sql`
        select string_agg(id::text, ',') as ids, string_agg(fields::text, ${JOIN}) as fields,
          string_agg((extract(epoch from created_at) * 1000)::bigint::text, ',') as created,
          string_agg((extract(epoch from changed_at) * 1000)::bigint::text, ',') as changed, string_agg(to_json(changed_by)::text, ${JOIN}) as persons
        from item where project_id = ${state.id} and node >= ${from} and node < ${from + BLOCK}`);
      const [row] = rows;
      if (!row?.ids) continue;
      const [fields, created, changed, persons] = [row.fields!.split(JOIN), row.created!.split(','), row.changed!.split(','), row.persons!.split(JOIN)];
      row.ids.split(',').forEach((id, at) =>
        told.push({
          ...{ id, fields: JSON.parse(fields[at]!) as ItemValue['fields'], changedBy: JSON.parse(persons[at]!) as string },
          ...{ createdAt: Number(created[at]), changedAt: Number(changed[at]) },
        }),
      );
    }
    return told;
  }
}
