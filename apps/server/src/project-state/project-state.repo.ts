import { CoombError } from '@coomb/contract';
import type { Scheme } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import type { LightItem, LightLinks, ProjectParts, TestResult } from './project-state.js';

/** Loads a whole project in a few packed queries: columns joined into one text each are far cheaper than rows. */
@Injectable()
export class ProjectStateRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  async load(id: string): Promise<ProjectParts> {
    const [project] = await this.db.select().from(schema.projects).where(eq(schema.projects.id, id));
    if (!project) throw new CoombError('not-found', `There is no project ${id}.`);
    const items = await this.loadItems(id);
    const nodeOf = new Map(items.map((item, node) => [item.id, node]));
    const kinds = new Map(project.scheme.linkKinds.map((kind, index) => [kind.id, index]));
    return {
      id,
      name: project.name,
      createdAt: new Date(project.createdAt).toISOString(),
      scheme: project.scheme,
      seq: project.seq,
      collections: await this.db.select().from(schema.collections).where(eq(schema.collections.projectId, id)),
      items,
      links: await this.loadLinks(id, nodeOf, kinds),
      waivers: await this.db.select().from(schema.waivers).where(eq(schema.waivers.projectId, id)),
      latest: await this.loadLatest(id),
      sources: await this.countSources(id),
      ruleFields: await this.loadRuleFields(id, project.scheme),
    };
  }

  private async loadRuleFields(id: string, scheme: Scheme): Promise<Map<string, Map<string, unknown>>> {
    const fields = new Set(scheme.rules.flatMap((rule) => [rule.of.field?.id, rule.reach.field?.id]).filter((field) => field !== undefined));
    const values = new Map<string, Map<string, unknown>>();
    for (const field of fields) {
      const rows = await this.columns<{ id: string; value: unknown }>(
        sql`select id, fields -> ${field}::text as value from item where project_id = ${id} and fields ? ${field}::text`,
      );
      values.set(field, new Map(rows.map((row) => [row.id, row.value])));
    }
    return values;
  }

  private async loadItems(id: string): Promise<LightItem[]> {
    const [columns] = await this.columns<Record<string, string | null>>(sql`
      select json_agg(id)::text as id, json_agg(collection_id)::text as "collectionId", json_agg(kind)::text as kind, json_agg(reference)::text as reference,
        json_agg(title)::text as title, json_agg(heading)::text as heading, json_agg(parent_id)::text as "parentId", json_agg(rank)::text as rank,
        json_agg(withdrawn)::text as withdrawn, json_agg(meaning_seq)::text as "meaningSeq", json_agg(revision)::text as revision,
        json_agg(external_id)::text as "externalId", json_agg(source_id)::text as "sourceId"
      from (select * from item where project_id = ${id} order by id) as item`);
    const parsed = Object.entries(columns ?? {}).map(([key, text]) => [key, JSON.parse(text ?? '[]')] as [keyof LightItem, unknown[]]);
    const count = parsed[0]?.[1].length ?? 0;
    const read = Object.fromEntries(parsed) as unknown as { [K in keyof LightItem]: LightItem[K][] };
    return Array.from({ length: count }, (_, i) => ({
      id: read.id[i]!,
      collectionId: read.collectionId[i]!,
      kind: read.kind[i]!,
      reference: read.reference[i]!,
      title: read.title[i]!,
      heading: read.heading[i]!,
      parentId: read.parentId[i]!,
      rank: read.rank[i]!,
      withdrawn: read.withdrawn[i]!,
      meaningSeq: read.meaningSeq[i]!,
      revision: read.revision[i]!,
      externalId: read.externalId[i]!,
      sourceId: read.sourceId[i]!,
    }));
  }

  private async loadLinks(id: string, nodeOf: Map<string, number>, kinds: Map<string, number>): Promise<LightLinks> {
    const [columns] = await this.columns<Record<'id' | 'from' | 'to' | 'kind' | 'fromSeq' | 'toSeq', string | null>>(sql`
      select string_agg(id::text, ',') as id, string_agg(from_id::text, ',') as "from", string_agg(to_id::text, ',') as "to",
        string_agg(kind, ',') as kind, string_agg(from_seq::text, ',') as "fromSeq", string_agg(to_seq::text, ',') as "toSeq"
      from link where project_id = ${id} and not withdrawn`);
    const split = (text: string | null | undefined) => (text ? text.split(',') : []);
    const node = (text: string) => nodeOf.get(text)!;
    return {
      id: split(columns?.id),
      from: Uint32Array.from(split(columns?.from), node),
      to: Uint32Array.from(split(columns?.to), node),
      kind: Uint8Array.from(split(columns?.kind), (kind) => kinds.get(kind) ?? 255),
      fromSeq: Uint32Array.from(split(columns?.fromSeq), Number),
      toSeq: Uint32Array.from(split(columns?.toSeq), Number),
    };
  }

  /** Latest result of each test case in the runs that are not withdrawn. */
  async loadLatest(id: string): Promise<Map<string, TestResult>> {
    const rows = await this.columns<{ test: string; outcome: TestResult['outcome']; seq: number; run: string; at: string }>(sql`
      select distinct on (result.test_id) result.test_id as test, result.outcome, run.seq, run.name as run, run.at
      from result join run on run.id = result.run_id
      where run.project_id = ${id} and not run.withdrawn and result.test_id is not null
      order by result.test_id, run.at desc, run.seq desc, result.ordinal desc`);
    return new Map(rows.map(({ test, outcome, seq, run, at }) => [test, { outcome, seq, run, at: new Date(at).toISOString() }]));
  }

  private async countSources(id: string): Promise<number> {
    const [row] = await this.columns<{ count: number }>(sql`select count(*)::int as count from source where project_id = ${id} and not withdrawn`);
    return row?.count ?? 0;
  }

  private async columns<T>(query: ReturnType<typeof sql>): Promise<T[]> {
    const { rows } = await this.db.execute(query);
    return rows as T[];
  }
}
