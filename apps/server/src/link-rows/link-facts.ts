import { Inject, Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import { DATABASE } from '../http/tokens.js';
import { presentMoment } from '../http/caller.js';
import type { LinkValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { FollowedFacts } from '../project-state/followed-facts.js';
import type { ProjectState } from '../project-state/project-state.js';

/** What is told of links and counts in no figure: texts are numbers of a list, times are milliseconds. */
export class LinkFacts {
  origin = new Uint16Array(0);
  person = new Uint16Array(0);
  at = new Float64Array(0);
  readonly origins: string[] = [];
  readonly persons: string[] = [];
  /** Of links that say something in a field; most say nothing. */
  readonly fields = new Map<number, LinkValue['fields']>();
  private readonly numbers = [new Map<string, number>(), new Map<string, number>()] as const;

  set(link: number, { origin, confirmedBy, confirmedAt, fields }: Told): void {
    if (fields && Object.keys(fields).length > 0) this.fields.set(link, fields);
    else this.fields.delete(link);
    if (link >= this.at.length) {
      const room = Math.ceil(link * 1.25) + 64;
      for (const column of ['origin', 'person'] as const) {
        const larger = new Uint16Array(room);
        larger.set(this[column]);
        this[column] = larger;
      }
      const times = new Float64Array(room);
      times.set(this.at);
      this.at = times;
    }
    this.origin[link] = this.number(0, this.origins, origin);
    this.person[link] = this.number(1, this.persons, confirmedBy);
    this.at[link] = typeof confirmedAt === 'number' ? confirmedAt : Date.parse(confirmedAt);
  }

  private number(which: 0 | 1, list: string[], text: string): number {
    let number = this.numbers[which].get(text);
    if (number === undefined) this.numbers[which].set(text, (number = list.push(text) - 1));
    return number;
  }
}

/** Reads what is told of a project's links once, and follows every change of it from then on. */
@Injectable()
export class LinkFactsKeeper {
  private readonly facts = new FollowedFacts<'link', Told, LinkFacts>({
    entity: 'link',
    begin: (state) => {
      const facts = new LinkFacts();
      const take = (row: Told) => {
        const link = state.linkIds.find(row.id);
        if (link !== undefined) facts.set(link, row);
      };
      return { facts, take };
    },
    read: (state) => (presentMoment() === undefined ? this.readPacked(state) : this.readPast(state)),
  });

  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  find(state: ProjectState): Promise<LinkFacts> {
    return this.facts.find(state);
  }

  private async readPast(state: ProjectState): Promise<Iterable<Told>> {
    const { graph } = state;
    const ids: string[] = [];
    for (let link = 0; link < graph.links; link++) if (graph.isAlive(link)) ids.push(state.linkIds.at(link));
    return (await this.rows.findRows(state.id, 'link', ids)).values();
  }

  /** As three long texts, for 200,000 rows take seconds; what few say (who, where from) is said once. */
  private async readPacked(state: ProjectState): Promise<Iterable<Told>> {
    const { rows: sorts } = await this.db.execute<{ origin: string; confirmedBy: string }>(sql`
      select distinct origin, confirmed_by as "confirmedBy" from link where project_id = ${state.id} and not withdrawn`);
    const packed = sorts.map(({ origin, confirmedBy }) =>
      this.db.execute<{ ids: string; times: string }>(sql`
        select string_agg(id::text, ',') as ids, string_agg((extract(epoch from confirmed_at) * 1000)::bigint::text, ',') as times
        from link where project_id = ${state.id} and not withdrawn and origin = ${origin} and confirmed_by = ${confirmedBy}`),
    );
    const { rows: said } = await this.db.execute<{ id: string; fields: LinkValue['fields'] }>(sql`
      select id, fields from link where project_id = ${state.id} and not withdrawn and fields <> '{}'::jsonb`);
    const fieldsOf = new Map(said.map(({ id, fields }) => [id, fields]));
    const texts = await Promise.all(packed);
    return texts.flatMap(({ rows: [row] }, at) => {
      if (!row?.ids) return [];
      const times = row.times.split(',');
      return row.ids.split(',').map((id, index) => ({ ...sorts[at]!, id, confirmedAt: Number(times[index]), fields: fieldsOf.get(id) }));
    });
  }
}

type Told = Pick<LinkValue, 'id' | 'origin' | 'confirmedBy'> & { confirmedAt: string | number; fields?: LinkValue['fields'] | undefined };
