import { sql } from 'drizzle-orm';
import { Inject, Injectable } from '@nestjs/common';
import type { Database } from '../database/database.js';
import { DATABASE } from '../http/tokens.js';
import type { Entities, Entity } from './change.js';
import { asideEntities, ledgerEntities, readValue, type Value } from './entities.js';

/** Share of all changes before which it is quicker to read all that stood then. */
const FAR = 0.2;

interface Entry {
  version: number;
  value: Value;
}

/** What things were as of an earlier change of their project, read from the history. */
@Injectable()
export class PastRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** Things by id as they were; those that did not exist yet are left out. What the history does not keep of a row (its node) is missing. */
  async findRows<E extends Entity>(project: string, seq: number, entity: E, ids: readonly string[]): Promise<Map<string, Entities[E]>> {
    if (ids.length === 0) return new Map();
    return this.read(project, entity, sql`entity_id = any(${`{${ids.join(',')}}`}::uuid[]) and seq <= ${seq}`);
  }

  /** Everything of one sort as it was, withdrawn ones too. */
  findAll<E extends Entity>(project: string, seq: number, entity: E): Promise<Map<string, Entities[E]>> {
    return this.read(project, entity, sql`seq <= ${seq}`);
  }

  /**
   * The things of one sort that changed after `seq` (`last` being the newest change), as they were; null for what came later. `without` names keys that are not wanted: what is long
   * need not be carried. One JSON text for all: rows of values one by one take the database four times as long.
   */
  async findChangedLater<E extends Entity>(
    project: string,
    { seq, last }: { seq: number; last: number },
    entity: E,
    without: readonly string[] = [],
  ): Promise<Map<string, Entities[E] | null>> {
    const present = ledgerEntities[entity].upgrades.length + 1;
    if (seq < last * FAR) return this.findChangedSinceFar(project, seq, entity, without);
    const { rows } = await this.db.execute<{ text: string }>(sql`
      select coalesce(json_agg(json_build_array(later.entity_id, "then".version,
        case when "then".version = ${present}::int then "then".value - ${`{${without.join(',')}}`}::text[] else "then".value end)), '[]')::text as text
      from (select distinct entity_id from history where project_id = ${project} and seq > ${seq} and entity = ${entity}) later
      left join lateral (
        select version, value from history
        where project_id = ${project} and entity = ${entity} and entity_id = later.entity_id and seq <= ${seq}
        order by history.seq desc, ordinal desc limit 1) "then" on true`);
    const entries = JSON.parse(rows[0]!.text) as [id: string, version: number, value: Value | null][];
    return new Map(
      entries.map(([id, version, value]) => [id, value === null ? null : (readValue(entity, { version, value }, project, without) as Entities[E])]),
    );
  }

  /** The same from so far back that what stood then is quicker read in one go than looked up thing by thing. */
  private async findChangedSinceFar<E extends Entity>(
    project: string,
    seq: number,
    entity: E,
    without: readonly string[],
  ): Promise<Map<string, Entities[E] | null>> {
    const present = ledgerEntities[entity].upgrades.length + 1;
    const { rows: later } = await this.db.execute<{ ids: string | null }>(sql`
      select string_agg(entity_id::text, ' ') as ids from (
        select distinct entity_id from history where project_id = ${project} and seq > ${seq} and entity = ${entity}) one`);
    const found = new Map<string, Entities[E] | null>((later[0]?.ids?.split(' ') ?? []).map((id) => [id, null]));
    if (found.size === 0) return found;
    const { rows } = await this.db.execute<{ text: string }>(sql`
      select coalesce(json_agg(json_build_array(entity_id, version,
        case when version = ${present}::int then value - ${`{${without.join(',')}}`}::text[] else value end) order by history.seq, ordinal), '[]')::text as text
      from history where project_id = ${project} and entity = ${entity} and seq <= ${seq}`);
    // In the order of the changes: the last that is read of a thing is the last that changed it.
    for (const [id, version, value] of JSON.parse(rows[0]!.text) as [id: string, version: number, value: Value][])
      if (found.has(id)) found.set(id, readValue(entity, { version, value }, project, without) as Entities[E]);
    return found;
  }

  /** The last change of each thing of one sort after `since`, up to `seq`: its number, by whom and when. */
  async findLastChanges(project: string, since: number, seq: number, entity: Entity): Promise<Map<string, { seq: number; person: string; at: string }>> {
    const { rows } = await this.db.execute(sql`
      select last.entity_id as id, last.seq::int as seq, batch.person as person, batch.at::text as at
      from (select entity_id, max(seq) as seq from history where project_id = ${project} and entity = ${entity} and seq > ${since} and seq <= ${seq} group by entity_id) last
      join batch on batch.project_id = ${project} and batch.seq = last.seq`);
    // The columns are named in the query.
    return new Map((rows as unknown as { id: string; seq: number; person: string; at: string }[]).map(({ id, ...last }) => [id, last]));
  }

  /** The moment of a change, and the last one up to it that reports tell of; nothing when there is no such change. */
  async findMoment(project: string, seq: number): Promise<{ at: string; contentSeq: number } | undefined> {
    const { rows } = await this.db.execute(sql`
      select batch.at::text as at, coalesce((select history.seq from history
        where project_id = ${project} and seq <= ${seq} and entity <> all(${`{${asideEntities.join(',')}}`}::text[]) order by history.seq desc limit 1), 0)::int as "contentSeq"
      from batch where batch.project_id = ${project} and batch.seq = ${seq}`);
    return rows[0] as { at: string; contentSeq: number } | undefined;
  }

  private async read<E extends Entity>(project: string, entity: E, where: ReturnType<typeof sql>): Promise<Map<string, Entities[E]>> {
    const { rows } = await this.db.execute(sql`
      select distinct on (entity_id) version, value from history
      where project_id = ${project} and entity = ${entity} and ${where}
      order by entity_id, seq desc, ordinal desc`);
    // The columns are named in the query.
    const found = (rows as unknown as Entry[]).map((entry) => readValue(entity, entry, project) as Entities[E]);
    return new Map(found.map((row) => [row.id, row]));
  }
}
