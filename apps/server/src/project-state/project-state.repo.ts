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
    const kinds = new Map(project.scheme.linkKinds.map((kind, index) => [kind.id, index]));
    return {
      id,
      name: project.name,
      createdAt: new Date(project.createdAt).toISOString(),
      scheme: project.scheme,
      seq: project.seq,
      collections: await this.db.select().from(schema.collections).where(eq(schema.collections.projectId, id)),
      items,
      links: await this.loadLinks(id, items, kinds),
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
    const text = (column: string) => sql.raw(`string_agg(translate(coalesce(${column}::text, ''), E'\\x1f', ' '), E'\\x1f' order by id)`);
    const [columns] = await this.columns<Record<string, string | null>>(sql`
      select ${text('id')} as id, ${text('collection_id')} as "collectionId", ${text('kind')} as kind, ${text('reference')} as reference, ${text('title')} as title,
        ${text('heading')} as heading, ${text('parent_id')} as "parentId", ${text('rank')} as rank, ${text('withdrawn')} as withdrawn,
        ${text('meaning_seq')} as "meaningSeq", ${text('revision')} as revision, ${text('external_id')} as "externalId", ${text('source_id')} as "sourceId"
      from item where project_id = ${id}`);
    if (!columns?.id) return [];
    const read = Object.fromEntries(Object.entries(columns).map(([key, joined]) => [key, joined!.split('\x1f')])) as Record<keyof LightItem, string[]>;
    return read.id.map((itemId, i) => ({
      id: itemId,
      collectionId: read.collectionId[i]!,
      kind: read.kind[i]!,
      reference: read.reference[i]!,
      title: read.title[i]!,
      heading: read.heading[i] === 'true',
      parentId: read.parentId[i] || null,
      rank: Number(read.rank[i]),
      withdrawn: read.withdrawn[i] === 'true',
      meaningSeq: Number(read.meaningSeq[i]),
      revision: Number(read.revision[i]),
      externalId: read.externalId[i] || null,
      sourceId: read.sourceId[i] || null,
    }));
  }

  /** Ids come as bytes, sixteen each: a third of their text, and found by it all the same. */
  private async loadLinks(id: string, items: readonly LightItem[], kinds: Map<string, number>): Promise<LightLinks> {
    const [columns] = await this.columns<Record<'id' | 'from' | 'to' | 'kind' | 'fromSeq' | 'toSeq', string | null>>(sql`
      select encode(string_agg(uuid_send(id), ''), 'base64') as id, encode(string_agg(uuid_send(from_id), ''), 'base64') as "from",
        encode(string_agg(uuid_send(to_id), ''), 'base64') as "to", string_agg(kind, ',') as kind,
        string_agg(from_seq::text, ',') as "fromSeq", string_agg(to_seq::text, ',') as "toSeq"
      from link where project_id = ${id} and not withdrawn`);
    const nodeOf = new Map(items.map((item, node) => [Buffer.from(item.id.replaceAll('-', ''), 'hex').toString('latin1'), node]));
    const nodes = (text: string | null | undefined) => {
      const bytes = Buffer.from(text ?? '', 'base64');
      return Uint32Array.from({ length: bytes.length / 16 }, (_, i) => nodeOf.get(bytes.toString('latin1', i * 16, i * 16 + 16))!);
    };
    const split = (text: string | null | undefined) => (text ? text.split(',') : []);
    return {
      id: Buffer.from(columns?.id ?? '', 'base64'),
      from: nodes(columns?.from),
      to: nodes(columns?.to),
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
